import { Form, useNavigation } from "react-router";
import { Problem } from "../../components/field.tsx";
import type { Route } from "./+types/route";

interface ManageProps {
  place: Route.ComponentProps["loaderData"]["place"];
  problem: string | null;
}

/** Renames the place, marks it as a test place, or takes it out of the estate. */
export function Manage({ place, problem }: ManageProps) {
  const busy = useNavigation().state !== "idle";
  return (
    <section aria-labelledby="manage" className="border border-hair bg-surface p-5">
      <h2 id="manage">This place</h2>
      <Form method="post" className="mt-2 flex items-end gap-2">
        <div className="flex-1">
          <label htmlFor="place-name" className="block text-sm font-medium">
            Name
          </label>
          <input
            id="place-name"
            name="name"
            defaultValue={place.name}
            maxLength={80}
            className="entry py-1"
          />
        </div>
        <button type="submit" name="act" value="rename" className="press py-1" disabled={busy}>
          Rename
        </button>
      </Form>
      <Form method="post" className="mt-3 flex flex-wrap gap-2">
        <input type="hidden" name="isTest" value={place.isTest ? "no" : "yes"} />
        <button type="submit" name="act" value="test" className="press py-1" disabled={busy}>
          {place.isTest ? "No longer a test place" : "Make it a test place"}
        </button>
        <button type="submit" name="act" value="retire" className="press py-1" disabled={busy}>
          Retire
        </button>
      </Form>
      <p className="mt-2 text-sm text-faint">
        A test place goes first in every rollout. A retired one keeps its look and its history.
      </p>
      {problem ? <Problem>{problem}</Problem> : null}
    </section>
  );
}
