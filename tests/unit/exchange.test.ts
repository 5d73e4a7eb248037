import { parse as parseCsv } from "csv-parse/sync";
import jsonld from "jsonld";
import { transform } from "lightningcss";
import { compileString } from "sass";
import { parse as parseToml } from "smol-toml";
import StyleDictionary from "style-dictionary";
import { parse as parseYaml } from "yaml";
import { toHex } from "#core/colour/srgb.ts";
import { PAIRS } from "#core/contrast/pairs.ts";
import { toCss } from "#core/exchange/css.ts";
import { toJson, toToml, toYaml } from "#core/exchange/data.ts";
import { flatten, VARIANTS } from "#core/exchange/flat.ts";
import { toPalette } from "#core/exchange/palette.ts";
import { toCsv, toEarl } from "#core/exchange/report.ts";
import { toScss } from "#core/exchange/scss.ts";
import { toTokens } from "#core/exchange/tokens.ts";
import { fromPrimary, setOverride } from "#core/theme/document.ts";
import { ROLES } from "#core/theme/roles.ts";
import { computeTheme } from "#core/theme/theme.ts";

const document = setOverride(fromPrimary("#0b5e55"), "light", "selection", {
  kind: "colour",
  colour: "#f26b21",
  alpha: 0.4,
});
const theme = computeTheme(
  setOverride(document, "dark", "link", { kind: "step", scale: "accent", step: 300 }),
);
const flat = flatten(theme);
const plain = JSON.parse(JSON.stringify(flat));

test("JSON, YAML and TOML read back equal", () => {
  expect(JSON.parse(toJson(theme))).toEqual(plain);
  expect(parseYaml(toYaml(theme))).toEqual(plain);
  expect(parseToml(toToml(theme))).toEqual(plain);
});

test("design tokens read back equal, aliases resolved by style-dictionary", async () => {
  const dictionary = await new StyleDictionary({
    tokens: JSON.parse(toTokens(theme)),
    usesDtcg: true,
    platforms: { plain: { transforms: [] } },
    log: { verbosity: "silent" },
  }).getPlatformTokens("plain");
  const at = (path: string[]) =>
    dictionary.allTokens.find((t) => t.path.join(".") === path.join("."))?.$value as {
      hex: string;
      alpha: number;
    };
  for (const [scale, steps] of Object.entries(flat.scales))
    for (const [step, hex] of Object.entries(steps))
      expect(at(["scale", scale, step]).hex).toBe(hex);
  for (const variant of VARIANTS)
    for (const role of ROLES) {
      if (role === "selection" && variant.startsWith("light")) continue;
      expect([role, at([variant, role]).hex]).toEqual([role, flat.schemes[variant][role]]);
    }
  expect(at(["light", "selection"])).toMatchObject({ hex: "#f26b21", alpha: 0.4 });
  expect(toTokens(theme)).toContain('"{scale.brand.700}"');
});

test("SCSS reads back equal through sass", () => {
  const probe = `${toScss(theme)}
    @use "sass:map";
    a { @each $name, $steps in $scales { @each $step, $value in $steps { --scale-#{$name}-#{$step}: #{$value}; } }
        ${VARIANTS.map((v) => `@each $role, $value in $${v} { --${v}-#{$role}: #{$value}; }`).join("\n")} }`;
  const { css } = compileString(probe.replace('@use "sass:map";', ""));
  for (const [scale, steps] of Object.entries(flat.scales))
    for (const [step, hex] of Object.entries(steps))
      expect(css).toContain(`--scale-${scale}-${step}: ${hex};`);
  for (const variant of VARIANTS)
    for (const role of ROLES)
      expect(css).toContain(`--${variant}-${role}: ${flat.schemes[variant][role]};`);
});

interface Seen {
  where: string;
  name: string;
  value: string;
}

/** Custom properties of a stylesheet as lightningcss understands them, each with the rules around it. */
function propertiesOf(css: string): Seen[] {
  const found: Seen[] = [];
  const around: string[] = [];
  transform({
    filename: "theme.css",
    code: Buffer.from(css),
    visitor: {
      Rule(rule) {
        around.push(rule.type);
        return undefined;
      },
      RuleExit() {
        around.pop();
        return undefined;
      },
      Declaration: {
        custom({ name, value }) {
          found.push({
            where: around.filter((r) => r !== "style").join(" "),
            name,
            value: JSON.stringify(value),
          });
          return undefined;
        },
      },
    },
  });
  return found;
}

test("CSS is understood by lightningcss, with every role in every place it must be", () => {
  const css = toCss(theme);
  const found = propertiesOf(css);
  const count = (where: string) =>
    found.filter((f) => f.where === where && f.name.startsWith("--livery-")).length;
  expect(count("")).toBe(7 * 11 + ROLES.length);
  expect(count("supports")).toBe(2 * ROLES.length);
  expect(count("supports media")).toBe(2 * ROLES.length);
  expect(count("media")).toBeGreaterThan(15);
  const canvas = found.filter((f) => f.name === "--livery-canvas");
  expect(canvas).toHaveLength(6);
  const { code } = transform({ filename: "t.css", code: Buffer.from(css), minify: true });
  expect(code.toString()).toContain(
    `--livery-action:light-dark(${flat.schemes.light.action},${flat.schemes.dark.action})`,
  );
  expect(css).toContain("--livery-selection: rgb(242 107 33 / 0.4);");
  expect(css).toContain("@media (prefers-contrast: more)");
  expect(css).toContain("@media (forced-colors: active)");
});

// No package of the registry reads this form; the check reads it as its plain-text description says.
test("the palette file holds every step by name", () => {
  const lines = toPalette(theme, "Sound\n2").split("\n");
  expect(lines.slice(0, 4)).toEqual(["GIMP Palette", "Name: Sound 2", "Columns: 11", "#"]);
  const read = lines.slice(4).flatMap((line) => {
    const [, r, g, b, name] = /^\s*(\d+)\s+(\d+)\s+(\d+)\t(.+)$/.exec(line) ?? [];
    return name ? [[name, toHex((Number(r) << 16) | (Number(g) << 8) | Number(b))]] : [];
  });
  const expected = Object.entries(flat.scales).flatMap(([scale, steps]) =>
    Object.entries(steps).map(([step, hex]) => [`${scale} ${step}`, hex]),
  );
  expect(read).toEqual(expected);
});

test("the report holds every verdict as CSV", () => {
  const rows = parseCsv(toCsv(theme), { columns: true }) as Record<string, string>[];
  expect(rows).toHaveLength(PAIRS.length * 4);
  const link = rows.find(
    (r) =>
      r.scheme === "dark" && r.level === "standard" && r.over === "link" && r.ground === "panel",
  );
  expect(link).toMatchObject({
    criterion: "1.4.3",
    owed: "4.5",
    outcome: "passed",
    "over colour": flat.schemes.dark.link,
  });
  expect(rows.filter((r) => r.outcome === "inapplicable")).toHaveLength(4);
});

test("the report is EARL in JSON-LD that another library expands", async () => {
  const expanded = (await jsonld.expand(JSON.parse(toEarl(theme, "Sound")))) as Record<
    string,
    unknown
  >[];
  const assertions = expanded.filter((node) =>
    (node["@type"] as string[] | undefined)?.includes("http://www.w3.org/ns/earl#Assertion"),
  );
  expect(assertions).toHaveLength(PAIRS.filter((p) => p.kind !== "neighbour").length * 4);
  expect(assertions[0]?.["http://www.w3.org/ns/earl#test"]).toEqual([
    { "@id": "https://www.w3.org/TR/WCAG22/#contrast-minimum" },
  ]);
});
