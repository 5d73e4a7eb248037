import { formatHex, parse as parseCss } from "culori";
import fc from "fast-check";
import { changesSince } from "#app/screens/release/since.ts";
import { NOTATIONS, written } from "#app/screens/workbench/notations.ts";
import { findingWords, repairWords } from "#app/wording/finding.ts";
import { notationWords } from "#app/wording/notation.ts";
import { overrideWords, reasonWords, sourceWords } from "#app/wording/reason.ts";
import { readColour } from "#core/colour/notation.ts";
import { toHex } from "#core/colour/srgb.ts";
import { fromPrimary, setOverride } from "#core/theme/document.ts";
import { repairsOf } from "#core/theme/repairs.ts";
import { ROLES, SCHEMES } from "#core/theme/roles.ts";
import { computeTheme } from "#core/theme/theme.ts";

test("a step copied in any notation is the same colour to CSS (culori) and to our own field", () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 0, max: 0xffffff }),
      fc.constantFrom(...NOTATIONS),
      (colour, notation) => {
        const text = written(colour, notation);
        expect(formatHex(parseCss(text))).toBe(toHex(colour));
        expect(readColour(text)).toMatchObject({ ok: true, value: { colour } });
      },
    ),
  );
});

test("every typed mistake is told with the part that is wrong and a form that works", () => {
  for (const [typed, part] of [
    ["", "Type a colour"],
    ["#12345", "12345"],
    ["#12345g", "g"],
    ["teel", "teel"],
    ["cmyk(1 2 3 4)", "cmyk"],
    ["rgb(1 2 3", "rgb"],
    ["oklch(1 2)", "oklch"],
    ["300, 1, 1", "300"],
  ] as const) {
    const read = readColour(typed);
    if (read.ok) throw new Error(`${typed} was taken`);
    const words = notationWords(read.error);
    expect(words).toContain(part);
    const examples = words.match(/#[0-9a-f]{6}|[a-z]+\(\d[^)”]*\)|\d+, \d+, \d+/g);
    const example = examples?.at(-1) ?? "none";
    expect({ words, read: readColour(example) }).toMatchObject({ read: { ok: true } });
  }
});

describe("the words of the workbench", () => {
  const document = [
    { role: "link", override: { kind: "colour", colour: "#9fd4cd" } },
    { role: "panel-text", override: { kind: "step", scale: "neutral", step: 300 } },
    { role: "line", override: { kind: "role", role: "canvas" } },
  ].reduce(
    (d, { role, override }) => setOverride(d, "light", role as never, override as never),
    fromPrimary("#14171a"),
  );
  const theme = computeTheme(document);

  test("say of every role where its colour is from, and why, in one sentence", () => {
    for (const scheme of SCHEMES)
      for (const level of ["standard", "more"] as const)
        for (const role of ROLES) {
          const { reason } = theme.schemes[scheme][level][role];
          expect(sourceWords(reason)).toMatch(/^[a-z]/);
          expect(reasonWords(reason)).toMatch(/^[A-Z].*\.$/);
          expect(reasonWords(reason)).not.toMatch(/undefined|\[object|NaN/);
        }
    expect(reasonWords(theme.schemes.light.standard.link.reason)).toBe("Set by hand to #9fd4cd.");
    expect(overrideWords({ kind: "colour", colour: "#000000", alpha: 0.4 })).toBe(
      "#000000 at 40 %",
    );
  });

  test("say of every finding how far it is off, and of each repair what it sets", () => {
    expect(theme.findings.length).toBeGreaterThan(3);
    for (const finding of theme.findings) {
      expect(findingWords(finding)).toMatch(/(needs [\d.]+:1|is wanted)\.$/);
      for (const repair of repairsOf(document, theme, finding))
        expect(repairWords(repair)).toMatch(/^(Set .+ to .+|Leave .+ to its rule again)$/);
    }
  });
});

test("what changed since a release is told by setting and by role, the largest first", () => {
  const before = fromPrimary("#0b5e55");
  const after = setOverride({ ...before, accent: "#f26b21", neutralTint: 80 }, "dark", "link", {
    kind: "colour",
    colour: "#ffffff",
  });
  const since = changesSince(before, after, "AA");
  expect(since.settings.map((s) => s.after)).toEqual(expect.arrayContaining(["#f26b21"]));
  const differences = since.roles.map((r) => r.difference);
  expect(differences).toEqual([...differences].sort((a, b) => b - a));
  expect(since.roles).toContainEqual(
    expect.objectContaining({ scheme: "dark", role: "link", after: "#ffffff" }),
  );
  expect(changesSince(after, after, "AA")).toEqual({ settings: [], roles: [], gained: 0, lost: 0 });
});
