import { shownRatio } from "../colour/contrast.ts";
import { toHex } from "../colour/srgb.ts";
import { barOf, type Conformance, criterionOf } from "../contrast/pairs.ts";
import { type PairVerdict, verdicts } from "../contrast/verdict.ts";
import { CONTRAST_LEVELS, type ContrastLevel, SCHEMES, type Scheme } from "../theme/roles.ts";
import type { Theme } from "../theme/theme.ts";

interface ReportLine extends PairVerdict {
  scheme: Scheme;
  level: ContrastLevel;
  overColour: string;
  groundColour: string;
  criterion: string | null;
}

function linesOf(theme: Theme, conformance: Conformance): ReportLine[] {
  return SCHEMES.flatMap((scheme) =>
    CONTRAST_LEVELS.flatMap((level) => {
      const colours = theme.schemes[scheme][level];
      const bar = barOf(level, conformance);
      return verdicts(colours, bar).map((v) => ({
        ...v,
        scheme,
        level,
        overColour: toHex(colours[v.over].colour),
        groundColour: toHex(colours[v.ground].colour),
        criterion: criterionOf(v, bar),
      }));
    }),
  );
}

const measure = (v: PairVerdict): string =>
  v.kind === "neighbour" ? v.measured.toFixed(4) : shownRatio(v.measured);

const outcome = (v: PairVerdict): "passed" | "failed" | "inapplicable" =>
  v.kind === "inactive" ? "inapplicable" : v.passes ? "passed" : "failed";

/** Every verdict of a theme as CSV (RFC 4180), one pair a line. */
export function toCsv(theme: Theme, conformance: Conformance = "AA"): string {
  const head =
    "scheme,level,kind,over,ground,over colour,ground colour,measured,owed,criterion,outcome";
  const rows = linesOf(theme, conformance).map((v) =>
    [
      v.scheme,
      v.level,
      v.kind,
      v.over,
      v.ground,
      v.overColour,
      v.groundColour,
      measure(v),
      v.owed,
      v.criterion ?? "",
      outcome(v),
    ].join(","),
  );
  return `${[head, ...rows].join("\r\n")}\r\n`;
}

/** Names of the success criteria in the W3C's own addresses of WCAG 2.2. */
const CRITERIA: Record<string, string> = {
  "1.4.3": "contrast-minimum",
  "1.4.6": "contrast-enhanced",
  "1.4.11": "non-text-contrast",
  "2.4.13": "focus-appearance",
};

/**
 * The verdicts that answer to a success criterion as EARL 1.0 in JSON-LD (W3C, "Evaluation and
 * Report Language"): one assertion a pair, its context inside, so that nothing must be fetched.
 */
export function toEarl(theme: Theme, subject: string, conformance: Conformance = "AA"): string {
  const assertions = linesOf(theme, conformance).flatMap((v) => {
    if (v.criterion === null) return [];
    return [
      {
        "@type": "earl:Assertion",
        assertedBy: "#livery",
        subject: "#theme",
        test: `https://www.w3.org/TR/WCAG22/#${CRITERIA[v.criterion]}`,
        mode: "earl:automatic",
        result: {
          "@type": "earl:TestResult",
          outcome: `earl:${outcome(v)}`,
          pointer: `${v.scheme} ${v.level}: ${v.over} on ${v.ground}`,
          info: `${v.overColour} on ${v.groundColour}: ${measure(v)}:1, owed ${v.owed}:1`,
        },
      },
    ];
  });
  const iri = (id: string) => ({ "@id": `earl:${id}`, "@type": "@id" });
  const document = {
    "@context": {
      earl: "http://www.w3.org/ns/earl#",
      dct: "http://purl.org/dc/terms/",
      assertedBy: iri("assertedBy"),
      subject: iri("subject"),
      test: iri("test"),
      mode: iri("mode"),
      outcome: iri("outcome"),
      result: "earl:result",
      pointer: "earl:pointer",
      info: "earl:info",
      title: "dct:title",
    },
    "@graph": [
      { "@id": "#livery", "@type": "earl:Software", title: "Livery" },
      { "@id": "#theme", "@type": "earl:TestSubject", title: subject },
      ...assertions,
    ],
  };
  return `${JSON.stringify(document, null, 2)}\n`;
}
