import { Link, redirect } from "react-router";
import { z } from "zod";
import { snippet } from "#core/exchange/snippet.ts";
import { listDeliveries } from "#server/deliveries/deliveries.ts";
import { acceptDrift, checkPlace } from "#server/deliveries/drift.ts";
import { listSeasons } from "#server/estate/assignments.ts";
import { findPlace, markTest, renamePlace, retirePlace } from "#server/estate/places.ts";
import { hostedAddress } from "#server/estate/target.ts";
import { viewEstate } from "#server/estate/tree.ts";
import { stylesheetOf } from "#server/hosted/find.ts";
import type { PlaceId } from "#server/ids.ts";
import { changeCredential, connectionOf } from "#server/platforms/connections.ts";
import { listReleases } from "#server/releases/releases.ts";
import { stripeOfDocument } from "#server/themes/stripes.ts";
import { listThemes } from "#server/themes/themes.ts";
import { Page } from "../../components/page.tsx";
import { useLive } from "../../components/use-live.ts";
import { found, idFrom } from "../../params.ts";
import { mayChange, signedIn } from "../../session.ts";
import { KIND_WORDS, PLACE_REFUSAL_WORDS, platformWords } from "../../wording/estate.ts";
import { faultWords, remedyWords } from "../../wording/fault.ts";
import type { Route } from "./+types/route";
import { Connection } from "./connection.tsx";
import { DeliverForm } from "./deliver-form.tsx";
import { Deliveries } from "./deliveries.tsx";
import { Hosted } from "./hosted.tsx";
import { LiveNow } from "./live-now.tsx";
import { Manage } from "./manage.tsx";
import { ThemeHere } from "./theme-here.tsx";

const SHOWN = 20;

export const meta: Route.MetaFunction = ({ loaderData }) => [
  { title: `${(loaderData as { place?: { name: string } })?.place?.name ?? "Place"} · Livery` },
];

export async function loader({ request, params }: Route.LoaderArgs) {
  const person = await signedIn(request);
  const place = found(await findPlace(idFrom<PlaceId>(params.place)));
  const [connection, deliveries, releases, seasons, estate, themes] = await Promise.all([
    connectionOf(place.id),
    listDeliveries(place.id, SHOWN),
    listReleases(SHOWN),
    listSeasons(place.id),
    viewEstate(),
    listThemes(1, 200),
  ]);
  const row = estate.rows.find((r) => r.id === place.id);
  // The releases of the theme that the place has come first: another one is seldom wanted here.
  const theme = row?.effective.theme ?? null;
  const ofTheme = theme ? await listReleases(SHOWN, theme) : [];
  const ofOthers = releases.filter(({ themeId }) => themeId !== theme);
  const sha256 = place.live ? await stylesheetOf(place.live.release.id) : null;
  const address = hostedAddress(place.slug);
  const origin = address.slice(0, address.indexOf("/t/"));
  const integrity = sha256 ? `sha256-${Buffer.from(sha256, "hex").toString("base64")}` : null;
  const fixedAddress = sha256 ? `${origin}/r/${sha256}/theme.css` : null;
  return {
    place,
    row: row ?? null,
    names: Object.fromEntries(estate.rows.map(({ id, name }) => [id, name])),
    parents: estate.rows.filter((r) => r.kind !== "area").map(({ id, name }) => ({ id, name })),
    connection,
    deliveries,
    seasons,
    mayChange: person.capability === "administrator",
    themes: themes.lines.map(({ id, name, document }) => ({
      id,
      name,
      stripe: stripeOfDocument(document),
    })),
    hosted: {
      address,
      snippets: {
        reader: snippet({ address, integrity: null, choice: "reader" }),
        system: snippet({ address, integrity: null, choice: "system" }),
        light: snippet({ address, integrity: null, choice: "light" }),
        dark: snippet({ address, integrity: null, choice: "dark" }),
      },
      fixed: fixedAddress && snippet({ address: fixedAddress, integrity, choice: "system" }),
    },
    liveStripe: place.live && stripeOfDocument(place.live.release.document),
    releases: [...ofTheme, ...ofOthers].map(({ id, name, themeId, document }) => ({
      id,
      name,
      isOfTheme: themeId === theme,
      stripe: stripeOfDocument(document),
    })),
  };
}

const credential = z.object({
  account: z.string().trim().min(1, "Enter the account's name.").max(254),
  password: z.string().min(1, "Enter the account's password.").max(1000),
});

export interface PlaceAnswer {
  problems?: { account?: string[]; password?: string[]; manage?: string[] };
  checked?: string;
}

/** Changes the account, looks for drift, accepts it, renames, marks or retires the place. */
export async function action({
  request,
  params,
}: Route.ActionArgs): Promise<PlaceAnswer | Response> {
  const person = await mayChange(request);
  const id = idFrom<PlaceId>(params.place);
  const form = await request.formData();
  const text = (name: string) => String(form.get(name) ?? "").trim();
  const manage = (words: string): PlaceAnswer => ({ problems: { manage: [words] } });
  switch (form.get("act")) {
    case "check": {
      const result = await checkPlace(id);
      if (result.ok)
        return {
          checked:
            result.drift.length === 0
              ? "The platform holds just what the receipt says."
              : "The platform holds something else than the receipt says; see below.",
        };
      if (result.code === "nothing-live")
        return { checked: "Nothing is live here to compare with." };
      return { checked: `${faultWords(result.fault)} ${remedyWords(result.fault)}` };
    }
    case "accept":
      await acceptDrift(id, person.id);
      return redirect(`/estate/${id}`);
    case "rename": {
      const name = text("name");
      if (name === "" || name.length > 80) return manage("Give a name of 1 to 80 characters.");
      const done = await renamePlace(id, name, person.id);
      return done.ok ? redirect(`/estate/${id}`) : manage(PLACE_REFUSAL_WORDS[done.code]);
    }
    case "test": {
      const done = await markTest(id, text("isTest") === "yes", person.id);
      return done.ok ? redirect(`/estate/${id}`) : manage(PLACE_REFUSAL_WORDS[done.code]);
    }
    case "retire": {
      const done = await retirePlace(id, person.id);
      return done.ok ? redirect("/estate") : manage(PLACE_REFUSAL_WORDS[done.code]);
    }
    default: {
      const read = credential.safeParse(Object.fromEntries(form));
      if (!read.success) return { problems: z.flattenError(read.error).fieldErrors };
      const connection = found(await connectionOf(id));
      await changeCredential(connection.id, read.data.account, read.data.password, person.id);
      return redirect(`/estate/${id}`);
    }
  }
}

export default function Place({ loaderData, actionData }: Route.ComponentProps) {
  const { place, connection, deliveries, mayChange } = loaderData;
  useLive(place.id);
  return (
    <Page
      title={place.name}
      lead={place.platform ? platformWords(place.platform) : KIND_WORDS[place.kind]}
      actions={
        <span className="flex gap-2">
          <Link to={`/estate/${place.id}/references`} className="press">
            References for builders
          </Link>
          {place.page ? (
            <a href={place.page} className="press" target="_blank" rel="noreferrer">
              Open {place.name}
            </a>
          ) : null}
        </span>
      }
    >
      <div className="grid grid-cols-[1.5fr_1fr] items-start gap-8">
        <div>
          {place.connectionId ? (
            <LiveNow loaderData={loaderData} checked={actionData?.checked ?? null} />
          ) : null}
          <ThemeHere loaderData={loaderData} />
          {place.connectionId ? <Deliveries deliveries={deliveries} /> : null}
        </div>
        <div className="space-y-6">
          {mayChange && place.connectionId ? <DeliverForm loaderData={loaderData} /> : null}
          {connection ? (
            <Connection
              connection={connection}
              mayChange={mayChange}
              problems={actionData?.problems ?? {}}
            />
          ) : null}
          {place.connectionId ? <Hosted hosted={loaderData.hosted} /> : null}
          {mayChange ? (
            <Manage place={place} problem={actionData?.problems?.manage?.[0] ?? null} />
          ) : null}
        </div>
      </div>
    </Page>
  );
}
