import { DEFAULT_POLICY } from "#core/contrast/policy.ts";
import { fromPrimary, setOverride } from "#core/theme/document.ts";
import { computeTheme } from "#core/theme/theme.ts";
import { AuditEntry, Connection, Delivery, Release, WaiverRow } from "#server/db/models/index.ts";
import { preflight, requestDelivery } from "#server/deliveries/deliveries.ts";
import { runDelivery } from "#server/deliveries/run.ts";
import type { DeliveryId, PersonId, ThemeId } from "#server/ids.ts";
import { newId } from "#server/ids.ts";
import { changeCredential, testConnection } from "#server/platforms/connections.ts";
import { changeSlotMap, readSlotMaps } from "#server/platforms/slot-maps.ts";
import { changePolicy, readPolicy } from "#server/policy/policy.ts";
import { grantWaiver, listWaivers, withdrawWaiver } from "#server/policy/waivers.ts";
import { makeRelease } from "#server/releases/releases.ts";
import { createTheme } from "#server/themes/themes.ts";
import { closeDatabase, freshDemo, placeOf, release } from "./system.ts";

let ines: PersonId;
beforeEach(async () => {
  ({ ines } = await freshDemo());
});
afterAll(closeDatabase);

const FAR = "2999-12-31";
/** A theme whose links can't be read in light, on two grounds. */
const SHORT = setOverride(fromPrimary("#0b5e55"), "light", "link", {
  kind: "colour",
  colour: "#7fc4bb",
});
let made = 0;
async function shortTheme(): Promise<ThemeId> {
  const theme = await createTheme(`Short ${++made}`, SHORT, ines);
  if (!theme.ok) throw new Error(theme.code);
  return theme.id;
}
const findings = () => computeTheme(SHORT).findings.filter((f) => f.kind === "text");
const releaseOf = (theme: ThemeId) =>
  makeRelease(theme, 1, { name: `Short ${++made}`, note: "for a test" }, ines);
async function waiveAll(theme: ThemeId, until = FAR): Promise<void> {
  for (const { kind, over, ground, scheme, level } of findings())
    expect(
      await grantWaiver(
        theme,
        { kind, over, ground, scheme, level, reason: "The old portal goes.", until },
        ines,
      ),
    ).toMatchObject({ ok: true });
}

test("until somebody changes it the policy is AA, refuses what falls short, and lets people accept", async () => {
  expect(await readPolicy()).toEqual(DEFAULT_POLICY);
  expect(await releaseOf(await shortTheme())).toMatchObject({ ok: false, code: "findings" });
});

test("accepted findings let a theme through until their last day, for that theme alone", async () => {
  const theme = await shortTheme();
  await waiveAll(theme);
  expect(await releaseOf(theme)).toMatchObject({ ok: true });
  expect(await releaseOf(await shortTheme())).toMatchObject({ ok: false });
  await WaiverRow.update({ until: "2020-01-01" }, { where: {} });
  expect(await releaseOf(theme)).toMatchObject({ ok: false, code: "findings" });
  expect((await listWaivers(theme)).map((w) => w.until)).toEqual(["2020-01-01", "2020-01-01"]);
});

test("one that is taken back counts again, and taking it back twice does nothing", async () => {
  const theme = await shortTheme();
  await waiveAll(theme);
  const [first] = await listWaivers(theme);
  expect(first).toMatchObject({ by: "Ines Varga", reason: "The old portal goes." });
  expect(await withdrawWaiver(theme, first?.id as never, ines)).toBe(true);
  expect(await withdrawWaiver(theme, first?.id as never, ines)).toBe(false);
  const refused = await releaseOf(theme);
  expect(refused).toMatchObject({ ok: false, code: "findings" });
  expect((refused as { findings: unknown[] }).findings).toHaveLength(1);
  expect(await AuditEntry.count({ where: { action: "waiver-withdrawn" } })).toBe(1);
});

test("nothing is accepted for a day that is over, of a theme that is none, or where the policy says no", async () => {
  const theme = await shortTheme();
  const { kind, over, ground, scheme, level } = findings()[0] as NonNullable<
    ReturnType<typeof findings>[number]
  >;
  const waiver = { kind, over, ground, scheme, level, reason: "Why not.", until: FAR };
  expect(await grantWaiver(theme, { ...waiver, until: "2020-01-01" }, ines)).toMatchObject({
    code: "in-the-past",
  });
  expect(await grantWaiver(newId<ThemeId>(), waiver, ines)).toMatchObject({
    code: "no-such-theme",
  });
  await waiveAll(theme);
  await changePolicy({ ...DEFAULT_POLICY, waivers: false }, ines);
  expect(await grantWaiver(theme, waiver, ines)).toMatchObject({ code: "not-allowed" });
  expect(await releaseOf(theme)).toMatchObject({ ok: false, code: "findings" });
});

test("a policy that warns lets everything through; level AAA is what a release is made by", async () => {
  await changePolicy({ conformance: "AAA", shortfall: "warn", waivers: true }, ines);
  expect(await readPolicy()).toEqual({ conformance: "AAA", shortfall: "warn", waivers: true });
  expect(await releaseOf(await shortTheme())).toMatchObject({ ok: true });
  const strict = await Release.findByPk(await release(ines, "#1d7a6f"));
  const computed = JSON.parse(strict?.artefacts[0]?.body ?? "") as {
    schemes: { light: Record<string, { colour: string }> };
  };
  const expected = computeTheme(fromPrimary("#1d7a6f"), "AAA").schemes.light.standard.link.colour;
  expect(computed.schemes.light.link?.colour).toBe(`#${expected.toString(16).padStart(6, "0")}`);
});

test("a slot map takes roles for slots that the platform has, keeps only what differs, and is set back", async () => {
  const usual = (await readSlotMaps()).tidemark;
  expect(await changeSlotMap("tidemark", { series: "accent" }, ines)).toBe(true);
  expect((await readSlotMaps()).tidemark).toEqual({ ...usual, series: "accent" });
  expect((await readSlotMaps()).commons.button).toBe("action");
  for (const wrong of [{ series: "loudest" }, { sextant: "accent" }, "series", null])
    expect(await changeSlotMap("tidemark", wrong, ines)).toBe(false);
  const kept = await Release.findByPk(await release(ines, "#0b5e55"));
  const file = kept?.artefacts.find((a) => a.name === "tidemark-look.toml")?.body;
  expect(await changeSlotMap("tidemark", {}, ines)).toBe(true);
  expect((await readSlotMaps()).tidemark).toEqual(usual);
  const later = await Release.findByPk(await release(ines, "#0b5e55"));
  const laterFile = later?.artefacts.find((a) => a.name === "tidemark-look.toml")?.body;
  const series = (text?: string) => /series = "(#\w+)"/.exec(text ?? "")?.[1];
  expect(series(file)).not.toBe(series(laterFile));
  expect((await Release.findByPk(kept?.id))?.artefacts).toEqual(kept?.artefacts);
});

test("a credential that was stored under another key says so, everywhere, and is entered anew", async () => {
  const connection = await Connection.findOne({ where: { platform: "tidemark" } });
  const id = connection?.id as never;
  await Connection.update({ secret: "of another key" }, { where: { id } });
  const place = await placeOf("sailings-board");
  const sound = await release(ines, "#0b5e55");
  expect(await testConnection(id)).toEqual({ code: "credential-unreadable" });
  expect(await preflight(place, sound)).toMatchObject([
    { subject: "right", outcome: "obstacle", fault: { code: "credential-unreadable" } },
  ]);
  const asked = await requestDelivery(place, sound, ines);
  await runDelivery((asked as { id: DeliveryId }).id);
  expect(await Delivery.findOne()).toMatchObject({
    state: "failed",
    failure: { code: "credential-unreadable" },
  });
  await changeCredential(id, "board.hand", "neap-and-spring-21", ines);
  const stored = (await Connection.findByPk(id))?.secret;
  expect(stored).not.toContain("neap");
  expect(await testConnection(id)).toMatchObject({ code: "unreachable" });
});
