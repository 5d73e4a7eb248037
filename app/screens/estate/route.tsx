import { Link } from "react-router";
import { listPlaces } from "#server/estate/estate.ts";
import { type ReleaseId, readId } from "#server/ids.ts";
import { findRelease } from "#server/releases/releases.ts";
import { stripeOfDocument } from "#server/themes/stripes.ts";
import { Page } from "../../components/page.tsx";
import { Pager, pageOf } from "../../components/pager.tsx";
import { Stripe } from "../../components/stripe.tsx";
import { Time } from "../../components/time.tsx";
import { useLive } from "../../components/use-live.ts";
import { signedIn } from "../../session.ts";
import { KIND_WORDS, PLATFORM_WORDS } from "../../wording/estate.ts";
import type { Route } from "./+types/route";

const PAGE_SIZE = 50;

export const meta: Route.MetaFunction = () => [{ title: "Estate · Livery" }];

export async function loader({ request }: Route.LoaderArgs) {
  const person = await signedIn(request);
  const params = new URL(request.url).searchParams;
  const page = pageOf(params);
  const { lines, total } = await listPlaces(page, PAGE_SIZE);
  const chosen = readId<ReleaseId>(params.get("release"));
  const release = chosen && (await findRelease(chosen));
  return {
    page,
    total,
    mayChange: person.capability === "administrator",
    release: release && {
      id: release.id,
      name: release.name,
      number: release.number,
      stripe: stripeOfDocument(release.document),
    },
    lines: lines.map((line) => ({
      ...line,
      stripe: line.live && stripeOfDocument(line.live.release.document),
    })),
  };
}

export default function Estate({ loaderData }: Route.ComponentProps) {
  const { lines, total, page, release, mayChange } = loaderData;
  useLive();
  return (
    <Page title="Estate" lead="Every place that can be branded, and what its readers see now.">
      {release ? (
        <p
          role="status"
          className="mb-4 flex items-center gap-4 border border-edge bg-surface px-4 py-3"
        >
          <Stripe colours={release.stripe} className="h-8 w-24" />
          <span>
            <strong>“{release.name}” is released.</strong>{" "}
            {mayChange ? "Choose a place below to deliver it to." : ""}
          </span>
        </p>
      ) : null}
      {lines.length === 0 ? (
        <p className="text-faint">There is no place yet.</p>
      ) : (
        <table className="cells w-full border border-hair bg-surface">
          <caption className="sr-only">Places with what is live there</caption>
          <thead>
            <tr>
              <th scope="col">Place</th>
              <th scope="col">Kind</th>
              <th scope="col">Live now</th>
              <th scope="col">Confirmed</th>
              <th scope="col">
                <span className="sr-only">Actions</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {lines.map((line) => (
              <tr key={line.id}>
                <th scope="row">
                  <span style={{ paddingLeft: line.parentId ? "1.5rem" : 0 }} className="block">
                    {line.platform ? (
                      <Link to={`/estate/${line.id}`} className="go font-semibold">
                        {line.name}
                      </Link>
                    ) : (
                      <span className="font-semibold">{line.name}</span>
                    )}
                  </span>
                </th>
                <td className="text-faint">
                  {KIND_WORDS[line.kind]}
                  {line.platform ? `, ${PLATFORM_WORDS[line.platform] ?? line.platform}` : ""}
                </td>
                <td>
                  {line.live && line.stripe ? (
                    <span className="flex items-center gap-3">
                      <Stripe colours={line.stripe} className="h-7 w-20" />
                      {line.live.release.name}
                    </span>
                  ) : (
                    <span className="text-faint">
                      {line.platform ? "nothing delivered yet" : "—"}
                    </span>
                  )}
                </td>
                <td className="text-sm text-faint">
                  {line.live ? <Time at={line.live.readAt} /> : null}
                </td>
                <td className="text-right">
                  {line.platform && release && mayChange ? (
                    <Link
                      to={`/estate/${line.id}/deliver?release=${release.id}`}
                      className="press press-main py-1"
                    >
                      Deliver here …
                    </Link>
                  ) : line.page ? (
                    <a href={line.page} className="go" target="_blank" rel="noreferrer">
                      Open {line.name}
                    </a>
                  ) : null}
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
