import fc from "fast-check";
import { visibleRows } from "#app/screens/estate/visible.ts";

const row = (id: string, parent: string | null, more = {}) => ({
  id,
  parent,
  name: id,
  standing: "live",
  platform: null as string | null,
  ...more,
});
const ESTATE = [
  row("group", null, { standing: "passes-on" }),
  row("ferries", "group", { standing: "passes-on" }),
  row("quayside", "ferries", { platform: "commons" }),
  row("rota", "quayside", { standing: "passes-on", platform: "commons" }),
  row("board", "ferries", { standing: "failed", platform: "tidemark" }),
];
const NONE = { search: "", standing: "", platform: "" };
const ids = (...of: Parameters<typeof visibleRows>) => visibleRows(...of).map((v) => v.row.id);

test("an open tree shows all, a closed place hides what is below it", () => {
  expect(ids(ESTATE, new Set(), NONE)).toEqual(["group", "ferries", "quayside", "rota", "board"]);
  expect(ids(ESTATE, new Set(["quayside"]), NONE)).toEqual([
    "group",
    "ferries",
    "quayside",
    "board",
  ]);
  expect(ids(ESTATE, new Set(["group"]), NONE)).toEqual(["group"]);
  const [, ferries, quayside] = visibleRows(ESTATE, new Set(["quayside"]), NONE);
  expect(ferries).toMatchObject({ level: 2, hasBelow: true, isOpen: true });
  expect(quayside).toMatchObject({ level: 3, hasBelow: true, isOpen: false });
});

test("what is looked for is shown with the places above it, closed or not", () => {
  const closed = new Set(["group", "ferries"]);
  expect(ids(ESTATE, closed, { ...NONE, search: " ROTA " })).toEqual([
    "group",
    "ferries",
    "quayside",
    "rota",
  ]);
  expect(ids(ESTATE, closed, { ...NONE, standing: "failed" })).toEqual([
    "group",
    "ferries",
    "board",
  ]);
  expect(ids(ESTATE, closed, { ...NONE, platform: "commons", search: "o" })).toContain("rota");
  expect(ids(ESTATE, closed, { ...NONE, search: "nothing has this name" })).toEqual([]);
});

test("every place is shown once, after its parent and one level below it", () => {
  fc.assert(
    fc.property(fc.array(fc.nat(), { minLength: 1, maxLength: 40 }), (above) => {
      const rows = above.map((n, i) => row(`p${i}`, i === 0 ? null : `p${n % i}`));
      const shown = visibleRows([...rows].reverse(), new Set(), NONE);
      expect(shown.map((v) => v.row.id).sort()).toEqual(rows.map((r) => r.id).sort());
      for (const [i, { row: at, level }] of shown.entries()) {
        const parent = shown.findIndex((v) => v.row.id === at.parent);
        expect(parent).toBeLessThan(i);
        expect(level).toBe(parent < 0 ? 1 : (shown[parent]?.level ?? 0) + 1);
      }
    }),
  );
});
