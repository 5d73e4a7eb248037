import { requestDelivery } from "#server/deliveries/deliveries.ts";
import { findPlace } from "#server/estate/places.ts";
import type { PlaceId } from "#server/ids.ts";
import {
  closeDatabase,
  freePort,
  freshDemo,
  placeOf,
  type Running,
  release,
  startStandins,
  startWeb,
  startWorker,
  until,
  WEB,
} from "./system.ts";

const running: Running[] = [];
afterAll(async () => {
  await Promise.all(running.map((one) => one.stop("SIGKILL")));
  await closeDatabase();
});

test("three web and three worker processes share one database", async () => {
  const { ines } = await freshDemo();
  const ports = [Number(new URL(WEB).port), await freePort(), await freePort()];
  const webs = ports.map((port) => `http://127.0.0.1:${port}`);
  running.push(
    ...(await Promise.all([
      startStandins(),
      ...ports.map((port) => startWeb({ PORT: String(port) })),
      ...[1, 2, 3].map(() => startWorker()),
    ])),
  );
  const signIn = await fetch(`${webs[0]}/sign-in`, {
    method: "POST",
    redirect: "manual",
    body: new URLSearchParams({
      email: "ines@orrinsound.example",
      password: "tidewater-lantern",
    }),
  });
  const cookie = signIn.headers.get("set-cookie")?.split(";")[0] ?? "";
  for (const web of webs) {
    const page = await fetch(`${web}/estate`, { headers: { cookie }, redirect: "manual" });
    expect(page.status).toBe(200);
    expect(await page.text()).toContain("Orrin Sound Ferries");
  }

  const heard = webs.slice(1).map(async (web) => {
    const stream = await fetch(`${web}/live`, { headers: { cookie } });
    const reader = (stream.body as ReadableStream<Uint8Array>).getReader();
    let text = "";
    while (!text.includes("event: change")) {
      const { value, done } = await reader.read();
      if (done) break;
      text += new TextDecoder().decode(value);
    }
    await reader.cancel();
    return text;
  });
  const places = await Promise.all(
    ["ticket-office", "quayside", "sailings-board", "crew-portal"].map(placeOf),
  );
  await new Promise((resolve) => setTimeout(resolve, 300));
  const sound = await release(ines, "#0b5e55", "Tide 1");
  await Promise.all(places.map((place) => requestDelivery(place, sound, ines)));
  const liveAt = async (place: PlaceId) => (await findPlace(place))?.live?.release.name;
  await until(async () => (await Promise.all(places.map(liveAt))).every((n) => n === "Tide 1"));
  for (const text of await Promise.all(heard)) expect(text).toContain("event: change");
  for (const web of webs) {
    const css = await fetch(`${web}/t/ticket-office/theme.css`);
    expect(await css.text()).toContain("#0b5e55");
  }
});
