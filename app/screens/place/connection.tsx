import { Form, useNavigation } from "react-router";
import { Field, Problem } from "../../components/field.tsx";
import type { Route } from "./+types/route";

interface ConnectionProps {
  connection: NonNullable<Route.ComponentProps["loaderData"]["connection"]>;
  mayChange: boolean;
  problems: { account?: string[]; password?: string[] };
}

/** How the platform is reached. The password goes in and is never shown again. */
export function Connection({ connection, mayChange, problems }: ConnectionProps) {
  const busy = useNavigation().formMethod === "POST";
  const wrong = Boolean(problems.account ?? problems.password);
  return (
    <section aria-labelledby="connection" className="border border-hair bg-surface p-5">
      <h2 id="connection">Connection</h2>
      <dl className="mt-2 grid grid-cols-[5.5rem_1fr] gap-y-1 text-sm">
        <dt className="text-faint">Address</dt>
        <dd className="break-all">{connection.address}</dd>
        <dt className="text-faint">Tenant</dt>
        <dd>{connection.scope}</dd>
        <dt className="text-faint">Account</dt>
        <dd className="break-all">{connection.account}</dd>
        <dt className="text-faint">Password</dt>
        <dd>stored encrypted, never shown</dd>
      </dl>
      {mayChange ? (
        <details className="mt-3" open={wrong || undefined}>
          <summary className="go">Change the account</summary>
          <Form method="post" className="mt-3 space-y-3" noValidate key={connection.account}>
            <Field
              id="account"
              label="Account on the platform"
              defaultValue={connection.account}
              errors={problems.account}
              autoComplete="off"
            />
            <Field
              id="password"
              label="Its password"
              type="password"
              errors={problems.password}
              autoComplete="off"
            />
            {wrong ? <Problem>Nothing was changed.</Problem> : null}
            <button type="submit" className="press" disabled={busy}>
              Store
            </button>
          </Form>
        </details>
      ) : null}
    </section>
  );
}
