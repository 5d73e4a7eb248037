import { spawnSync } from "node:child_process";
import { mkdtempSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { contrast } from "#core/colour/contrast.ts";
import { fromHex, pack, toHex } from "#core/colour/srgb.ts";
import { STEPS, type Step } from "#core/scale/ladder.ts";

const ROOT = join(import.meta.dirname, "../..");

function theme(...args: string[]) {
  const env = { ...process.env, NODE_OPTIONS: "", DATABASE_URL: "" };
  const { stdout, stderr, status } = spawnSync(join(ROOT, "livery"), ["theme", ...args], {
    env,
    encoding: "utf8",
    maxBuffer: 1 << 30,
  });
  return { stdout, stderr, status };
}

function batch(lines: string[], ...args: string[]) {
  const file = join(mkdtempSync(join(tmpdir(), "livery-batch-")), "colours.txt");
  writeFileSync(file, `${lines.join("\n")}\n`);
  const { stdout, status } = theme("--batch", file, ...args);
  return {
    rows: stdout
      .trim()
      .split("\n")
      .map((line) => JSON.parse(line) as Row),
    status,
  };
}

interface Row {
  brand: string;
  scales: Record<string, Record<string, string>>;
  brandSteps: { brand: Step };
  schemes: Record<string, Record<string, string>>;
  findings: { kind: string; over: string; ground: string; scheme: string; level: string }[];
  error?: string;
  line?: number;
}

test("a grid of 17³ colours through the batch: brand exact, contract kept, no failing pair, charts apart", () => {
  const channel = Array.from({ length: 17 }, (_, i) => Math.round((i * 255) / 16));
  const colours = channel.flatMap((r) =>
    channel.flatMap((g) => channel.map((b) => toHex(pack(r, g, b)))),
  );
  const { rows, status } = batch(colours);
  expect(status).toBe(0);
  expect(rows.map((r) => r.brand)).toEqual(colours);
  const wrong = rows.flatMap(({ brand, scales, brandSteps, findings }) => [
    ...(scales.brand?.[brandSteps.brand] === brand ? [] : [`${brand} is not in its scale`]),
    ...findings
      .filter((f) => f.kind !== "alike" || f.over.startsWith("chart") || f.ground !== "action")
      .map((f) => `${brand} ${JSON.stringify(f)}`),
    ...apart(brand, scales.brand ?? {}, scales.neutral ?? {}),
  ]);
  expect(wrong).toEqual([]);
});

/** The contract's distances, worked out here on what the command printed. */
function apart(
  brand: string,
  own: Record<string, string>,
  neutral: Record<string, string>,
): string[] {
  return STEPS.flatMap((light, i) =>
    (
      [
        [5, 3],
        [6, 4.5],
        [7, 7],
      ] as const
    ).flatMap(([places, owed]) => {
      const dark = STEPS[i + places];
      if (dark === undefined) return [];
      const ratio = (a = "", b = "") => contrast(fromHex(a), fromHex(b));
      const pairs = [
        ratio(own[light], own[dark]),
        ratio(own[light], neutral[dark]),
        ratio(neutral[light], own[dark]),
      ];
      return pairs.some((r) => r < owed)
        ? [`${brand}: ${light} and ${dark} have ${pairs.join(", ")}`]
        : [];
    }),
  );
}

test("a bad line is an error in its place, and the run goes on with exit status 1", () => {
  const { rows, status } = batch(["#0b5e55", "no colour", "rgb(11, 94, 85)"]);
  expect(status).toBe(1);
  expect(rows[1]).toEqual({ error: expect.stringContaining("no colour"), line: 2 });
  expect(rows[2]).toEqual(rows[0]);
  expect(Object.keys(rows[0]?.schemes ?? {})).toEqual(["light", "dark", "light-more", "dark-more"]);
});

test("the same theme gives the same bytes in every format on every run", () => {
  for (const format of [
    "tokens",
    "css",
    "scss",
    "json",
    "yaml",
    "toml",
    "palette",
    "report",
    "earl",
  ]) {
    const once = theme("0b5e55", "--format", format, "--accent", "orange", "--level", "AAA");
    expect(once).toMatchObject({ status: 0, stderr: "" });
    expect(once.stdout.length).toBeGreaterThan(1000);
    expect(
      theme("#0b5e55", "--format", format, "--accent", "#ffa500", "--level", "AAA").stdout,
    ).toBe(once.stdout);
  }
});

test.each([
  [["blurple"], 'livery: "blurple" can\'t be read as a colour'],
  [["#0b5e55", "--format", "pdf"], "livery: --format takes tokens, css"],
  [
    ["#0b5e55", "--neutral-tint", "200"],
    "livery: --neutral-tint takes a whole number from 0 to 100",
  ],
  [["--batch", "/nowhere"], "livery: /nowhere can't be read"],
  [[], "livery: give a colour"],
])("%j is one clear line and status 1", (args, line) => {
  const { stdout, stderr, status } = theme(...args);
  expect({ stdout, status }).toEqual({ stdout: "", status: 1 });
  expect(stderr).toContain(line);
  expect(stderr.trim().split("\n")).toHaveLength(1);
});
