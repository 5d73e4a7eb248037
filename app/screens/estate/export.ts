import { exportEstate, toCsv } from "#server/estate/listing.ts";
import { signedIn } from "../../session.ts";
import type { Route } from "./+types/export";

/** The whole estate as a file, CSV or JSON. */
export async function loader({ request }: Route.LoaderArgs) {
  await signedIn(request);
  const asJson = new URL(request.url).searchParams.get("as") === "json";
  const places = await exportEstate();
  return new Response(asJson ? JSON.stringify(places, null, 2) : toCsv(places), {
    headers: {
      "content-type": asJson ? "application/json" : "text/csv; charset=utf-8",
      "content-disposition": `attachment; filename="estate.${asJson ? "json" : "csv"}"`,
      "cache-control": "no-store",
    },
  });
}
