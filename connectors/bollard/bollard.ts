import { z } from "zod";
import { toCss } from "#core/exchange/css.ts";
import { artefactOf, beforeEntry, check, faultOf } from "../checks.ts";
import { type Connector, DeliveryFault, type Fault, type Target } from "../connector.ts";
import { call, expectOk, read } from "../http.ts";

export const STYLESHEET = "theme.css";

const visit = z.object({
  /** The stylesheet that the page links; null where it links none. */
  linked: z.string().nullable(),
  /** SHA-256 of what the visitor's browser has of it; null where it could not be loaded. */
  sha256: z.string().nullable(),
  /** How long the visitor's browser still goes by its copy, in milliseconds. */
  freshForMs: z.number().nonnegative(),
});

/** Bollard: nothing is sent; its pages link the place's hosted stylesheet, and a visit shows which. */
export const bollard: Connector = {
  platform: "bollard",
  limits: ["nothing-is-sent"],
  usualSlots: {},

  artefacts: ({ theme }) => [{ name: STYLESHEET, mediaType: "text/css", body: toCss(theme) }],

  reference: (kind, name) => (kind === "slot" ? null : `var(--livery-${name})`),

  async probe(link) {
    expectOk(await call(link, "/api/about"));
    return { mayPublish: true };
  },

  async preflight(target) {
    try {
      const linked = await linkedAt(target);
      return [
        check("reachable", null),
        check("place", null),
        check("feature", linkObstacle(target, linked)),
      ];
    } catch (error) {
      const fault = faultOf(error);
      if (fault.code === "no-such-place")
        return [
          check("reachable", null),
          check("place", fault),
          { subject: "feature", outcome: "unknown", fault: null },
        ];
      return beforeEntry(fault, ["place", "feature"]).filter((c) => c.subject !== "right");
    }
  },

  expected: (parcel, { hosted }) => ({
    "linked stylesheet": hosted,
    "stylesheet SHA-256": parcel ? artefactOf(parcel, STYLESHEET).sha256 : "",
  }),

  async deliver(target) {
    const fault = linkObstacle(target, await linkedAt(target));
    if (fault) throw new DeliveryFault(fault);
  },

  async readBack(target, parcel) {
    const { linked, sha256, freshForMs } = await visitOf(target);
    const wanted = parcel ? artefactOf(parcel, STYLESHEET).sha256 : "";
    if (sha256 === null && wanted !== "" && linked === target.hosted)
      throw new DeliveryFault({ code: "unreachable", address: target.hosted });
    if ((sha256 ?? "") !== wanted && freshForMs > 0)
      throw new DeliveryFault({ code: "not-shown-yet", retryAfterMs: freshForMs });
    return { "linked stylesheet": linked ?? "", "stylesheet SHA-256": sha256 ?? "" };
  },
};

/** The stylesheet that a place's pages link; empty where they link none. */
async function linkedAt({ link, key }: Target): Promise<string> {
  const answer = await call(link, `/api/apps/${encodeURIComponent(key)}`);
  if (answer.status === 404) throw new DeliveryFault({ code: "no-such-place", key });
  const schema = z.object({ linked: z.string().nullable() });
  return read(schema, expectOk(answer), "app").linked ?? "";
}

/** What a reader's browser has when it visits a place's page now. */
async function visitOf({ link, key }: Target): Promise<z.infer<typeof visit>> {
  const answer = await call(link, `/api/visits/${encodeURIComponent(key)}`, { method: "POST" });
  if (answer.status === 404) throw new DeliveryFault({ code: "no-such-place", key });
  return read(visit, expectOk(answer), "visit");
}

const linkObstacle = ({ hosted }: Target, linked: string): Fault | null =>
  linked === hosted ? null : { code: "other-stylesheet", linked, hosted };
