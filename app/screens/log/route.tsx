import { Form, Link } from "react-router";
import { AUDIT_ACTIONS, type AuditAction } from "#server/audit/actions.ts";
import { readLog } from "#server/audit/audit.ts";
import { Page } from "../../components/page.tsx";
import { Time } from "../../components/time.tsx";
import { signedIn } from "../../session.ts";
import { ACTION_WORDS, detailWords } from "../../wording/audit.ts";
import type { Route } from "./+types/route";

const PAGE_SIZE = 50;

export const meta: Route.MetaFunction = () => [{ title: "Log · Livery" }];

export async function loader({ request }: Route.LoaderArgs) {
  await signedIn(request);
  const params = new URL(request.url).searchParams;
  const action = AUDIT_ACTIONS.find((a) => a === params.get("action")) ?? null;
  const before = /^\d{1,18}$/.test(params.get("before") ?? "") ? params.get("before") : null;
  return {
    ...(await readLog(PAGE_SIZE, { action, before })),
    action,
    before,
    actions: AUDIT_ACTIONS,
  };
}

export default function Log({ loaderData }: Route.ComponentProps) {
  const { lines, older, action, before, actions } = loaderData;
  const link = (id: string) =>
    `?${new URLSearchParams({ ...(action ? { action } : {}), before: id })}`;
  return (
    <Page title="Log" lead="Who did what, and when. Nothing here can be changed.">
      <Form className="mb-4 flex items-end gap-3">
        <div>
          <label htmlFor="action" className="block text-sm font-medium">
            Show
          </label>
          <select id="action" name="action" defaultValue={action ?? ""} className="entry mt-1 w-72">
            <option value="">everything</option>
            {actions.map((a) => (
              <option key={a} value={a}>
                {ACTION_WORDS[a]}
              </option>
            ))}
          </select>
        </div>
        <button type="submit" className="press">
          Show
        </button>
      </Form>
      {lines.length === 0 ? (
        <p className="text-faint">Nothing of this kind has happened yet.</p>
      ) : (
        <table className="cells w-full border border-hair bg-surface">
          <caption className="sr-only">What happened, newest first</caption>
          <thead>
            <tr>
              <th scope="col" className="w-52">
                When
              </th>
              <th scope="col" className="w-44">
                Who
              </th>
              <th scope="col">What</th>
            </tr>
          </thead>
          <tbody>
            {lines.map((line) => (
              <tr key={line.id}>
                <td className="text-sm">
                  <Time at={line.at} />
                </td>
                <td>{line.person ?? <span className="text-faint">Livery itself</span>}</td>
                <td>
                  {ACTION_WORDS[line.action as AuditAction]}
                  <span className="ml-2 text-sm text-faint">{detailWords(line.detail)}</span>
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      <nav aria-label="Pages" className="mt-4 flex gap-4">
        {before ? (
          <Link className="go" to={action ? `?action=${action}` : "?"}>
            Newest
          </Link>
        ) : null}
        {older ? (
          <Link className="go" to={link(older)}>
            Older
          </Link>
        ) : null}
      </nav>
    </Page>
  );
}
