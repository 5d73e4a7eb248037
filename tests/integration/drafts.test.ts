import { fromPrimary } from "#core/theme/document.ts";
import type { PersonId, ThemeId } from "#server/ids.ts";
import { makeRelease } from "#server/releases/releases.ts";
import {
  createTheme,
  listThemes,
  listVersions,
  openTheme,
  saveDraft,
  takeVersion,
} from "#server/themes/themes.ts";
import { closeDatabase, freshDemo } from "./system.ts";

let ines: PersonId;
let tomas: PersonId;
let theme: ThemeId;
beforeEach(async () => {
  ({ ines, tomas } = await freshDemo());
  const made = await createTheme("Tide", fromPrimary("#0b5e55"), ines);
  if (!made.ok) throw new Error(made.code);
  theme = made.id;
});
afterAll(closeDatabase);

test("a save over somebody's newer save is refused with both versions kept", async () => {
  expect(await saveDraft(theme, 1, fromPrimary("#111111"), tomas)).toEqual({
    ok: true,
    revision: 2,
  });
  const refused = await saveDraft(theme, 1, fromPrimary("#222222"), ines);
  expect(refused).toMatchObject({
    ok: false,
    code: "newer",
    theirs: { revision: 2, savedBy: "Tomas Brekke", document: { primary: "#111111" } },
  });
  expect(await openTheme(theme)).toMatchObject({ revision: 2, document: { primary: "#111111" } });
  const { lines } = await listVersions(theme, 1, 10);
  expect(lines.map((l) => [l.revision, l.document.primary, l.savedBy])).toEqual([
    [null, "#222222", "Ines Varga"],
    [2, "#111111", "Tomas Brekke"],
    [1, "#0b5e55", "Ines Varga"],
  ]);
});

test("what was kept aside can be gone on from", async () => {
  await saveDraft(theme, 1, fromPrimary("#111111"), tomas);
  await saveDraft(theme, 1, fromPrimary("#222222"), ines);
  const kept = (await listVersions(theme, 1, 10)).lines[0];
  if (!kept) throw new Error("nothing was kept");
  expect(await takeVersion(theme, kept.id, 2, ines)).toEqual({ ok: true, revision: 3 });
  expect(await openTheme(theme)).toMatchObject({ document: { primary: "#222222" } });
});

test("of many saves at the same moment one is taken, and none is lost", async () => {
  const colours = ["#100000", "#200000", "#300000", "#400000", "#500000", "#600000"] as const;
  const results = await Promise.all(colours.map((c) => saveDraft(theme, 1, fromPrimary(c), ines)));
  expect(results.filter((r) => r.ok)).toHaveLength(1);
  const { lines } = await listVersions(theme, 1, 20);
  expect(lines.map((l) => l.document.primary).sort()).toEqual([...colours, "#0b5e55"].sort());
});

test("names are unique whatever their case; lists are paged and searched in the database", async () => {
  expect(await createTheme("TIDE", fromPrimary("#000000"), ines)).toEqual({
    ok: false,
    code: "name-taken",
  });
  for (let i = 0; i < 6; i++) await createTheme(`Ebb ${i} 100%`, fromPrimary("#123456"), ines);
  expect((await listThemes(2, 4)).lines).toHaveLength(4);
  expect(await listThemes(1, 3, { search: "ebb" })).toMatchObject({
    total: 6,
    lines: { length: 3 },
  });
  expect((await listThemes(1, 3, { search: "%_" })).total).toBe(0);
});

test("a release is of the revision that was seen, under a name of its own", async () => {
  await saveDraft(theme, 1, fromPrimary("#111111"), tomas);
  const words = { name: "Tide 1", note: "first" };
  expect(await makeRelease(theme, 1, words, ines)).toEqual({ ok: false, code: "draft-moved-on" });
  expect(await makeRelease(theme, 2, words, ines)).toMatchObject({ ok: true, number: 1 });
  expect(await makeRelease(theme, 2, { ...words, name: "tide 1" }, ines)).toEqual({
    ok: false,
    code: "name-taken",
  });
});
