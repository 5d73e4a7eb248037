import { readFileSync } from "node:fs";
import { parseArgs } from "node:util";
import { type NotationError, readColour } from "#core/colour/notation.ts";
import { type Hex, toHex } from "#core/colour/srgb.ts";
import { CONFORMANCES, type Conformance } from "#core/contrast/pairs.ts";
import { flatten } from "#core/exchange/flat.ts";
import { fromPrimary, type ThemeDocument } from "#core/theme/document.ts";
import { computeTheme, type Theme } from "#core/theme/theme.ts";

const FORMATS = [
  "tokens",
  "css",
  "scss",
  "json",
  "yaml",
  "toml",
  "palette",
  "report",
  "earl",
] as const;
type Format = (typeof FORMATS)[number];

/** A wrong option or colour: the line that is printed. */
class UsageError extends Error {}

interface Options {
  accent: Hex | null;
  neutralTint: number;
  conformance: Conformance;
}

function colourOf(text: string): Hex {
  const read = readColour(text);
  if (!read.ok) throw new UsageError(notationLine(read.error));
  if (read.value.alpha < 1)
    throw new UsageError(`"${text}" is translucent; a brand colour can't be.`);
  return toHex(read.value.colour);
}

/** An error of notation in one line, with a form that works. */
function notationLine(error: NotationError): string {
  const part = "part" in error ? `"${error.part}"` : "nothing";
  return `${part} can't be read as a colour (${error.code}). Try #0b5e55, rgb(11 94 85) or teal.`;
}

function themeOf(primary: Hex, options: Options): Theme {
  const { accent, neutralTint, conformance } = options;
  const document: ThemeDocument = { ...fromPrimary(primary), accent, neutralTint };
  return computeTheme(document, conformance);
}

/** Writers are loaded when they are asked for, so that the command starts quickly. */
async function write(
  theme: Theme,
  format: Format,
  options: Options,
  name: string,
): Promise<string> {
  switch (format) {
    case "tokens":
      return (await import("#core/exchange/tokens.ts")).toTokens(theme);
    case "css":
      return (await import("#core/exchange/css.ts")).toCss(theme);
    case "scss":
      return (await import("#core/exchange/scss.ts")).toScss(theme);
    case "json":
      return `${JSON.stringify(flatten(theme), null, 2)}\n`;
    case "yaml":
      return (await import("#core/exchange/data.ts")).toYaml(theme);
    case "toml":
      return (await import("#core/exchange/data.ts")).toToml(theme);
    case "palette":
      return (await import("#core/exchange/palette.ts")).toPalette(theme, name);
    case "report":
      return (await import("#core/exchange/report.ts")).toCsv(theme, options.conformance);
    case "earl":
      return (await import("#core/exchange/report.ts")).toEarl(theme, name, options.conformance);
  }
}

/** One line of the batch's answer. */
function batchLine(text: string, line: number, options: Options): { json: string; ok: boolean } {
  try {
    const theme = themeOf(colourOf(text), options);
    return { json: JSON.stringify({ ...flatten(theme), findings: theme.findings }), ok: true };
  } catch (error) {
    if (!(error instanceof UsageError)) throw error;
    return { json: JSON.stringify({ error: error.message, line }), ok: false };
  }
}

async function batch(file: string, options: Options): Promise<number> {
  let text: string;
  try {
    text = readFileSync(file === "-" ? 0 : file, "utf8");
  } catch (error) {
    throw new UsageError(`${file} can't be read: ${(error as Error).message}`);
  }
  const lines = text.replace(/\r?\n$/, "").split(/\r?\n/);
  let status = 0;
  for (const [i, line] of lines.entries()) {
    const { json, ok } = batchLine(line, i + 1, options);
    if (!ok) status = 1;
    if (!process.stdout.write(`${json}\n`))
      await new Promise((resolve) => process.stdout.once("drain", resolve));
  }
  return status;
}

function readOptions(args: string[]) {
  try {
    const { values, positionals } = parseArgs({
      args,
      allowPositionals: true,
      options: {
        accent: { type: "string" },
        "neutral-tint": { type: "string" },
        level: { type: "string" },
        format: { type: "string" },
        batch: { type: "string" },
      },
    });
    return { values, positionals };
  } catch (error) {
    throw new UsageError((error as Error).message);
  }
}

function oneOf<T extends string>(
  given: string | undefined,
  allowed: readonly T[],
  option: string,
  fallback: T,
): T {
  if (given === undefined) return fallback;
  const found = allowed.find((a) => a === given);
  if (found === undefined)
    throw new UsageError(`--${option} takes ${allowed.join(", ")}, not "${given}".`);
  return found;
}

function tintOf(given: string | undefined): number {
  const tint = given === undefined ? fromPrimary("#000000").neutralTint : Number(given);
  if (!Number.isInteger(tint) || tint < 0 || tint > 100)
    throw new UsageError(`--neutral-tint takes a whole number from 0 to 100, not "${given}".`);
  return tint;
}

async function main(args: string[]): Promise<number> {
  const { values, positionals } = readOptions(args);
  const options: Options = {
    accent: values.accent === undefined ? null : colourOf(values.accent),
    neutralTint: tintOf(values["neutral-tint"]),
    conformance: oneOf(values.level, CONFORMANCES, "level", "AA"),
  };
  if (values.batch !== undefined) return batch(values.batch, options);
  if (positionals.length === 0)
    throw new UsageError("give a colour, such as ./livery theme '#0b5e55'.");
  const primary = colourOf(positionals.join(" "));
  const format = oneOf(values.format, FORMATS, "format", "json");
  process.stdout.write(
    await write(themeOf(primary, options), format, options, `Theme of ${primary}`),
  );
  return 0;
}

process.stdout.on("error", () => process.exit(0));
main(process.argv.slice(2)).then(
  (status) => {
    process.exitCode = status;
  },
  (error: unknown) => {
    if (!(error instanceof UsageError)) throw error;
    console.error(`livery: ${error.message}`);
    process.exitCode = 1;
  },
);
