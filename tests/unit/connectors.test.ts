import { parse as parseToml } from "smol-toml";
import { PLATFORMS, type Platform, type SealedArtefact } from "#connectors/connector.ts";
import { CONNECTORS } from "#connectors/registry.ts";
import { snippet } from "#core/exchange/snippet.ts";
import { fromPrimary } from "#core/theme/document.ts";
import { ROLES } from "#core/theme/roles.ts";
import { computeTheme } from "#core/theme/theme.ts";

const COLOURS = ["#0b5e55", "#ffc800", "#14171a", "#ffff00", "#000000", "#ffffff"] as const;

/** A release's files for a platform, as the server would seal them. */
function files(platform: Platform, primary: (typeof COLOURS)[number]): SealedArtefact[] {
  const document = fromPrimary(primary);
  const { usualSlots, artefacts } = CONNECTORS[platform];
  return artefacts({
    name: "Tide 1",
    theme: computeTheme(document),
    document,
    slots: usualSlots,
  }).map((a) => ({ ...a, sha256: "0".repeat(64) }));
}

test.each(PLATFORMS)(
  "%s: every usual slot is a role, and every slot is filled for any brand colour",
  (platform) => {
    const { usualSlots, expected } = CONNECTORS[platform];
    for (const role of Object.values(usualSlots)) expect(ROLES).toContain(role);
    const target = {
      link: { address: "", scope: "", account: "", secret: "" },
      key: "",
      hosted: "http://livery.example/t/x/theme.css",
    };
    for (const primary of COLOURS) {
      const parcel = { name: "Tide 1", artefacts: files(platform, primary) };
      const values = expected(parcel, target);
      expect(Object.values(values).every((value) => value !== "")).toBe(true);
      expect(expected(null, target)).not.toEqual(values);
    }
  },
);

test("another slot map fills the slots of a release otherwise", () => {
  const document = fromPrimary("#0b5e55");
  const theme = computeTheme(document);
  const { usualSlots, artefacts } = CONNECTORS.tidemark;
  const of = (slots: typeof usualSlots) =>
    parseToml(artefacts({ name: "Tide 1", theme, document, slots })[0]?.body ?? "") as {
      light: Record<string, string>;
    };
  expect(of({ ...usualSlots, series: "header" }).light.series).toBe("#0b5e55");
  expect(of({ ...usualSlots, series: "canvas" }).light.series).toBe(of(usualSlots).light.ground);
});

test("the stylesheet of a portal stays under its platform's limit", () => {
  for (const primary of COLOURS) {
    const css = files("gangway", primary).find((a) => a.name === "gangway.css")?.body ?? "";
    expect(Buffer.byteLength(css)).toBeLessThan(64 * 1024);
  }
});

test("tones keep their names whatever the colour, since formulas refer to them", () => {
  const names = (primary: (typeof COLOURS)[number]) =>
    Object.keys((JSON.parse(files("sluice", primary)[0]?.body ?? "") as { tones: object }).tones);
  for (const primary of COLOURS) expect(names(primary)).toEqual(names("#0b5e55"));
  expect(names("#0b5e55")).toHaveLength(33);
});

test("the lines to paste are small, seal what never changes, and let readers choose without a flash", () => {
  const address = "https://livery.example/t/quayside/theme.css";
  const reader = snippet({ address, integrity: null, choice: "reader" });
  expect(Buffer.byteLength(reader)).toBeLessThan(1024);
  expect(reader.indexOf("<script>")).toBeLessThan(reader.indexOf("<link"));
  const sealed = snippet({ address, integrity: "sha256-abc=", choice: "system" });
  expect(sealed).toContain('integrity="sha256-abc=" crossorigin="anonymous"');
  expect(sealed).not.toContain("<script>");

  const root = { dataset: {} as Record<string, string> };
  const kept = new Map<string, string>([["livery-scheme", "dark"]]);
  const run = (code: string) =>
    new Function("document", "window", "localStorage", `${code}; return window`)(
      { documentElement: root },
      {},
      {
        getItem: (key: string) => kept.get(key) ?? null,
        setItem: (key: string, value: string) => kept.set(key, value),
      },
    ) as { livery: { scheme(scheme: string): void } };
  const code = /<script>(.*)<\/script>/.exec(reader)?.[1] ?? "";
  const page = run(code);
  expect(root.dataset.scheme).toBe("dark");
  page.livery.scheme("system");
  expect(root.dataset.scheme).toBeUndefined();
  page.livery.scheme("light");
  expect([root.dataset.scheme, kept.get("livery-scheme")]).toEqual(["light", "light"]);
});
