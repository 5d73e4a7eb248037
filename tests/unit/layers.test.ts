import { readdirSync, readFileSync } from "node:fs";
import { dirname, join, relative, resolve } from "node:path";
import ts from "typescript";

const ROOT = resolve(import.meta.dirname, "../..");
const LAYERS = ["core", "connectors", "server", "app"];
/** Folders of one layer that may not import from one another. */
const SIBLINGS: Record<string, string[]> = {
  connectors: ["connectors/"],
  app: ["app/screens/"],
  standins: ["standins/"],
};
/** Order within core: a folder imports from those before it, and from its own group. */
const CORE_ORDER = [["colour"], ["scale"], ["contrast", "theme"], ["exchange", "estate"]];

interface Import {
  from: string;
  to: string;
}

function sourceFiles(folder: string): string[] {
  return readdirSync(join(ROOT, folder), { withFileTypes: true }).flatMap((entry) => {
    const path = join(folder, entry.name);
    if (entry.isDirectory()) return sourceFiles(path);
    return /\.tsx?$/.test(entry.name) ? [path] : [];
  });
}

function importsOf(file: string): Import[] {
  const { importedFiles } = ts.preProcessFile(readFileSync(join(ROOT, file), "utf8"), true, true);
  return importedFiles.flatMap(({ fileName }) => {
    if (fileName.startsWith("#")) return [{ from: file, to: fileName.slice(1) }];
    if (!fileName.startsWith(".")) return [];
    return [{ from: file, to: relative(ROOT, resolve(join(ROOT, dirname(file)), fileName)) }];
  });
}

const layerOf = (path: string) => path.split("/")[0] as string;

/** The rule that an import breaks, in words; null where it breaks none. */
function broken({ from, to }: Import): string | null {
  const [a, b] = [layerOf(from), layerOf(to)];
  if (to.includes("+types/")) return null;
  if (a === "standins" || b === "standins")
    return a === b ? sideways({ from, to }) : "stand-ins know nothing of Livery";
  if (LAYERS.indexOf(b) < 0) return "imports from outside the layers";
  if (LAYERS.indexOf(b) > LAYERS.indexOf(a)) return "points up";
  return a === b ? sideways({ from, to }) : null;
}

function sideways({ from, to }: Import): string | null {
  if (layerOf(from) === "core") {
    const rank = (path: string) =>
      CORE_ORDER.findIndex((g) => g.includes(path.split("/")[1] ?? ""));
    return rank(to) > rank(from) ? "points up within core" : null;
  }
  for (const base of SIBLINGS[layerOf(from)] ?? []) {
    const part = (path: string) => path.slice(base.length).split("/");
    if (!from.startsWith(base) || !to.startsWith(base)) continue;
    const [a, b] = [part(from), part(to)];
    if (a.length > 1 && b.length > 1 && a[0] !== b[0]) return "points sideways";
  }
  return null;
}

const all = [...LAYERS, "standins"].flatMap(sourceFiles).flatMap(importsOf);

test("imports point downward only", () => {
  expect(all.length).toBeGreaterThan(200);
  const wrong = all.flatMap((i) => (broken(i) ? [`${i.from} → ${i.to}: ${broken(i)}`] : []));
  expect(wrong).toEqual([]);
});

test("the rule sees an import that points up, sideways, or into a stand-in", () => {
  expect(broken({ from: "core/theme/a.ts", to: "server/b.ts" })).toBe("points up");
  expect(broken({ from: "core/colour/a.ts", to: "core/theme/b.ts" })).toBe("points up within core");
  expect(broken({ from: "connectors/commons/a.ts", to: "connectors/other/b.ts" })).toBe(
    "points sideways",
  );
  expect(broken({ from: "app/screens/log/a.ts", to: "app/screens/place/b.ts" })).toBe(
    "points sideways",
  );
  expect(broken({ from: "standins/main.ts", to: "core/theme/b.ts" })).not.toBeNull();
  expect(broken({ from: "app/screens/log/a.ts", to: "app/components/b.ts" })).toBeNull();
});

test("core imports no Node module and no interface", () => {
  const files = sourceFiles("core").map((file) => readFileSync(join(ROOT, file), "utf8"));
  const named = files.flatMap((text) =>
    ts.preProcessFile(text).importedFiles.map((f) => f.fileName),
  );
  const outside = named.filter((name) => !name.startsWith(".") && !name.startsWith("#"));
  expect(new Set(outside)).toEqual(new Set(["culori/fn", "smol-toml", "yaml", "zod"]));
});
