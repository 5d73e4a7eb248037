import { createContext, useContext } from "react";
import { DEFAULT_POLICY, type Policy } from "#core/contrast/policy.ts";

/** What the organisation asks, for whatever on the workbench measures or tries something. */
export const PolicyContext = createContext<Policy>(DEFAULT_POLICY);

export const usePolicy = (): Policy => useContext(PolicyContext);
