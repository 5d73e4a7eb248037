import { Link } from "react-router";
import { listRollouts } from "#server/rollouts/view.ts";
import { Page } from "../../components/page.tsx";
import { Pager, pageOf } from "../../components/pager.tsx";
import { RolloutProgress } from "../../components/rollout-progress.tsx";
import { Time } from "../../components/time.tsx";
import { useLive } from "../../components/use-live.ts";
import { signedIn } from "../../session.ts";
import { ROLLOUT_WORDS } from "../../wording/estate.ts";
import type { Route } from "./+types/route";

const PAGE_SIZE = 20;

export const meta: Route.MetaFunction = () => [{ title: "Rollouts · Livery" }];

export async function loader({ request }: Route.LoaderArgs) {
  const person = await signedIn(request);
  const page = pageOf(new URL(request.url).searchParams);
  return {
    page,
    mayChange: person.capability === "administrator",
    ...(await listRollouts(page, PAGE_SIZE)),
  };
}

export default function Rollouts({ loaderData }: Route.ComponentProps) {
  const { lines, total, page, mayChange } = loaderData;
  useLive();
  return (
    <Page
      title="Rollouts"
      lead="What is being delivered, in which wave, and what each place answered."
      actions={
        mayChange ? (
          <Link to="/rollouts/new" className="press press-main">
            Plan a rollout …
          </Link>
        ) : null
      }
    >
      {lines.length === 0 ? (
        <p className="text-faint">None yet. Release a theme, then plan where it goes.</p>
      ) : (
        <table className="cells w-full border border-hair bg-surface">
          <caption className="sr-only">Rollouts, newest first</caption>
          <thead>
            <tr>
              <th scope="col">Rollout</th>
              <th scope="col">State</th>
              <th scope="col">Places</th>
              <th scope="col">Asked for</th>
            </tr>
          </thead>
          <tbody>
            {lines.map((line) => (
              <tr key={line.id}>
                <th scope="row">
                  <Link to={`/rollouts/${line.id}`} className="go font-semibold break-words">
                    {line.name}
                  </Link>
                </th>
                <td data-state={line.state}>
                  {ROLLOUT_WORDS[line.state]}
                  {line.state === "running" || line.state === "waiting"
                    ? `, wave ${Math.max(1, line.wave)} of ${line.waves}`
                    : ""}
                  {line.state === "scheduled" && line.startsAt ? (
                    <span className="block text-sm text-faint">
                      <Time at={line.startsAt} />
                    </span>
                  ) : null}
                </td>
                <td>
                  <RolloutProgress counts={line.counts} />
                </td>
                <td className="text-sm text-faint">
                  {line.requestedBy}, <Time at={line.requestedAt} />
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      <Pager page={page} size={PAGE_SIZE} total={total} />
    </Page>
  );
}
