import { Form, Link, useNavigation } from "react-router";
import { z } from "zod";
import { PLATFORMS } from "#connectors/connector.ts";
import { CONNECTORS } from "#connectors/registry.ts";
import { type ConnectionId, readId } from "#server/ids.ts";
import {
  addConnection,
  changeCredential,
  listConnections,
  testConnection,
} from "#server/platforms/connections.ts";
import { readSlotMaps } from "#server/platforms/slot-maps.ts";
import { Field, Problem } from "../../components/field.tsx";
import { Page } from "../../components/page.tsx";
import { Time } from "../../components/time.tsx";
import { mayChange, signedIn } from "../../session.ts";
import { LIMIT_WORDS, platformWords } from "../../wording/estate.ts";
import { faultWords, remedyWords } from "../../wording/fault.ts";
import type { Route } from "./+types/route";

export const meta: Route.MetaFunction = () => [{ title: "Platforms · Livery" }];

export async function loader({ request }: Route.LoaderArgs) {
  const person = await signedIn(request);
  const [connections, maps] = await Promise.all([listConnections(), readSlotMaps()]);
  return {
    mayChange: person.capability === "administrator",
    connections,
    platforms: PLATFORMS.map((platform) => {
      const { usualSlots, limits } = CONNECTORS[platform];
      const slots = Object.keys(usualSlots);
      const changed = slots.filter((slot) => maps[platform][slot] !== usualSlots[slot]).length;
      return { platform, limits, slots: slots.length, changed };
    }),
  };
}

const credential = z.object({
  account: z.string().trim().min(1, "Enter the account's name.").max(254),
  secret: z.string().min(1, "Enter its password, key or token.").max(4000),
});
const added = credential.extend({
  name: z.string().trim().min(1, "Give the connection a name.").max(80),
  platform: z.enum(PLATFORMS),
  address: z.url({ protocol: /^https?$/, error: "Enter the platform's whole address." }),
  scope: z.string().trim().max(200),
});

type Answer = { about: string; words: string; wrong: boolean };

/** Tests a credential, replaces it, or adds a connection. */
export async function action({ request }: Route.ActionArgs): Promise<Answer> {
  const person = await mayChange(request);
  const form = await request.formData();
  const id = readId<ConnectionId>(form.get("connection"));
  const entered = Object.fromEntries(form);
  if (form.get("act") === "add") {
    const read = added.safeParse(entered);
    if (!read.success)
      return {
        about: "add",
        words: read.error.issues.map((i) => i.message).join(" "),
        wrong: true,
      };
    const made = await addConnection(read.data, person.id);
    return { about: made, words: "It is connected. Test it before you rely on it.", wrong: false };
  }
  if (!id) return { about: "add", words: "Load the page again.", wrong: true };
  if (form.get("act") === "test") {
    const fault = await testConnection(id);
    return fault
      ? { about: id, words: `${faultWords(fault)} ${remedyWords(fault)}`, wrong: true }
      : {
          about: id,
          words: "The platform answers, and the account may publish there.",
          wrong: false,
        };
  }
  const read = credential.safeParse(entered);
  if (!read.success)
    return { about: id, words: read.error.issues.map((i) => i.message).join(" "), wrong: true };
  await changeCredential(id, read.data.account, read.data.secret, person.id);
  return { about: id, words: "The credential is replaced. Test it.", wrong: false };
}

export default function Platforms({ loaderData, actionData }: Route.ComponentProps) {
  const { connections, platforms, mayChange } = loaderData;
  const busy = useNavigation().state !== "idle";
  const said = (about: string) =>
    actionData?.about === about ? (
      actionData.wrong ? (
        <Problem>{actionData.words}</Problem>
      ) : (
        <p role="status" className="mt-1 text-sm">
          ✓ {actionData.words}
        </p>
      )
    ) : null;
  return (
    <Page title="Platforms" lead="How each platform is reached, and which role fills which slot.">
      <section aria-labelledby="connections">
        <h2 id="connections">Connections</h2>
        <ul className="rows mt-2 border border-hair bg-surface">
          {connections.map((c) => (
            <li key={c.id} className="px-5 py-3" data-connection={c.name}>
              <div className="flex flex-wrap items-baseline gap-x-4">
                <strong>{c.name}</strong>
                <span className="text-sm text-faint">
                  {c.account ? `${c.account} at ` : "no account needed, "}
                  {c.address}, {c.places === 1 ? "one place" : `${c.places} places`}
                </span>
                {mayChange ? (
                  <Form method="post" className="ml-auto">
                    <input type="hidden" name="connection" value={c.id} />
                    <button
                      type="submit"
                      name="act"
                      value="test"
                      className="press py-0.5"
                      disabled={busy}
                      aria-label={`Test ${c.name}`}
                    >
                      Test
                    </button>
                  </Form>
                ) : null}
              </div>
              {c.refusedAt ? (
                <p className="mt-1 flex gap-1.5 text-sm font-medium">
                  <span aria-hidden="true">▲</span>
                  <span>
                    The platform refused this credential <Time at={c.refusedAt} />. Nothing is tried
                    with it until it is replaced or tested.
                  </span>
                </p>
              ) : null}
              {said(c.id)}
              {mayChange && c.platform !== "bollard" ? (
                <details className="mt-1 text-sm">
                  <summary className="go">Replace the credential</summary>
                  <Form method="post" noValidate className="mt-2 flex flex-wrap items-end gap-3">
                    <input type="hidden" name="connection" value={c.id} />
                    <Field
                      id={`account-${c.id}`}
                      name="account"
                      label="Account"
                      defaultValue={c.account}
                      autoComplete="off"
                    />
                    <Field
                      id={`secret-${c.id}`}
                      name="secret"
                      label="Password, key or token"
                      type="password"
                      autoComplete="off"
                    />
                    <button type="submit" name="act" value="replace" className="press">
                      Store
                    </button>
                  </Form>
                </details>
              ) : null}
            </li>
          ))}
        </ul>
        {mayChange ? (
          <details className="mt-3 border border-hair bg-surface px-5 py-3">
            <summary className="go">Connect another</summary>
            <Form method="post" noValidate className="mt-3 grid grid-cols-2 gap-3">
              <Field id="name" label="Name" hint="As people will choose it." />
              <label className="block">
                <span className="font-medium">Platform</span>
                <select name="platform" className="entry mt-1">
                  {PLATFORMS.map((platform) => (
                    <option key={platform} value={platform}>
                      {platformWords(platform)}
                    </option>
                  ))}
                </select>
              </label>
              <Field id="address" label="Address" inputMode="url" />
              <Field id="scope" label="Tenant" hint="Where the platform has several." />
              <Field id="account" label="Account" autoComplete="off" />
              <Field
                id="secret"
                label="Password, key or token"
                type="password"
                autoComplete="off"
              />
              <span>
                <button type="submit" name="act" value="add" className="press press-main">
                  Connect
                </button>
              </span>
            </Form>
          </details>
        ) : null}
        {said("add")}
      </section>
      <section aria-labelledby="kinds" className="mt-8">
        <h2 id="kinds">Kinds of platform</h2>
        <ul className="rows mt-2 border border-hair bg-surface">
          {platforms.map(({ platform, limits, slots, changed }) => (
            <li key={platform} className="grid grid-cols-[14rem_1fr_auto] gap-4 px-5 py-3">
              <strong className="first-letter:uppercase">{platformWords(platform)}</strong>
              <ul className="text-sm">
                {limits.map((limit) => (
                  <li key={limit}>{LIMIT_WORDS[limit]}</li>
                ))}
              </ul>
              {slots > 0 ? (
                <Link to={`/platforms/${platform}`} className="go text-sm">
                  {slots} slots{changed > 0 ? `, ${changed} changed` : ""}
                </Link>
              ) : (
                <span className="text-sm text-faint">takes every role</span>
              )}
            </li>
          ))}
        </ul>
      </section>
    </Page>
  );
}
