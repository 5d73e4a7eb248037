import { detailWords } from "#app/wording/audit.ts";
import { effectiveWords } from "#app/wording/effective.ts";
import { refusalWords, summaryWords } from "#app/wording/estate.ts";
import { faultWords, remedyWords } from "#app/wording/fault.ts";
import type { Fault } from "#connectors/connector.ts";

/** One of each fault; the type sees that none is left out. */
const FAULTS: { [Code in Fault["code"]]: Extract<Fault, { code: Code }> } = {
  unreachable: { code: "unreachable", address: "http://quay.example" },
  "platform-error": { code: "platform-error", status: 507 },
  nonsense: { code: "nonsense", where: "look" },
  throttled: { code: "throttled", retryAfterMs: 1000 },
  refused: { code: "refused", reason: "tide is out" },
  "wrong-credential": { code: "wrong-credential", account: "ines@quay.example" },
  "credential-unreadable": { code: "credential-unreadable" },
  "token-refused": { code: "token-refused" },
  "no-right": { code: "no-right", account: "ines@quay.example", scope: "Quay" },
  "no-such-place": { code: "no-such-place", key: "quayside" },
  "follows-hub": { code: "follows-hub", hub: "quayside" },
  "feature-off": { code: "feature-off", key: "hulls" },
  "name-too-long": { code: "name-too-long", name: "Tide", longest: 40 },
  "name-taken": { code: "name-taken", name: "Tide 1" },
  "names-changed": { code: "names-changed", names: ["brand-50", "brand-100"] },
  "too-large": { code: "too-large", name: "quay.css", bytes: 70_000, most: 65_536 },
  "slots-missing": { code: "slots-missing", slots: ["a", "b", "c", "d", "e", "f"] },
  "changed-meanwhile": { code: "changed-meanwhile", file: "board" },
  "not-shown-yet": { code: "not-shown-yet", retryAfterMs: 500 },
  "other-stylesheet": {
    code: "other-stylesheet",
    linked: "http://old.example/a.css",
    hosted: "http://livery.example/t/x/theme.css",
  },
  "read-back-differs": { code: "read-back-differs", slots: ["light button"] },
};

test.each(Object.values(FAULTS))(
  "$code: what happened names its particulars, and there is something to do",
  (fault) => {
    const said = faultWords(fault);
    expect(said).toMatch(/^\S.*\.$/);
    expect(remedyWords(fault)).toMatch(/^[A-Z].*\.$/);
    expect(`${said} ${remedyWords(fault)}`).not.toMatch(/undefined|\[object|NaN/);
    for (const [name, value] of Object.entries(fault)) {
      if (name === "code" || name === "retryAfterMs" || Array.isArray(value)) continue;
      expect(`${said} ${remedyWords(fault)}`).toContain(String(value));
    }
  },
);

test("a long list of slots is cut and counted, and one slot is one", () => {
  expect(faultWords(FAULTS["slots-missing"])).toBe("No colour for a, b, c, d and 2 more.");
  expect(faultWords(FAULTS["read-back-differs"])).toContain("in one slot: light button.");
  expect(faultWords({ code: "read-back-differs", slots: ["a", "b"] })).toContain(
    "in 2 slots: a, b.",
  );
});

test("an application that links nothing is told apart from one that links something else", () => {
  const fault = FAULTS["other-stylesheet"];
  expect(faultWords(fault)).toContain("http://old.example/a.css");
  expect(faultWords({ ...fault, linked: "" })).toBe(
    "The application links no stylesheet of Livery's.",
  );
  expect(remedyWords(fault)).toContain(fault.hosted);
});

test("why a place has its theme is said with the names of places and the days", () => {
  const names = new Map([["group", "Orrin Sound Group"]]);
  const words = (reason: Parameters<typeof effectiveWords>[0]) => effectiveWords(reason, names);
  expect(words({ kind: "none" })).toBe("nothing to inherit");
  expect(words({ kind: "own" })).toBe("its own");
  expect(words({ kind: "season", until: "2026-12-31" })).toBe("its season, until 2026-12-31");
  expect(words({ kind: "inherited", from: "group", until: null })).toBe(
    "inherits from Orrin Sound Group",
  );
  expect(words({ kind: "inherited", from: "group", until: "2026-12-31" })).toBe(
    "inherits from Orrin Sound Group, until 2026-12-31",
  );
  expect(words({ kind: "locked", by: "group", until: null, ownWaits: true })).toBe(
    "locked by Orrin Sound Group; its own waits",
  );
});

test("a change that can't be made says which place, which other, and what to do first", () => {
  expect(refusalWords({ code: "locked-above", place: "Slipway", by: "Group" })).toMatch(
    /^Slipway .*Group .*Unlock it there first\.$/,
  );
  expect(
    refusalWords({ code: "overlaps", place: "Slipway", from: "2026-12-01", until: "2026-12-31" }),
  ).toMatch(/2026-12-01 to 2026-12-31 .*Choose other days/);
  expect(refusalWords({ code: "no-theme-to-lock", place: "Slipway" })).toContain("Slipway");
});

describe("the log says of an entry", () => {
  test.each<[string, Record<string, unknown>, string]>([
    ["a theme given", { place: "Quayside", theme: "Sound" }, "“Sound”, at Quayside"],
    ["a rename, once", { before: "Slip", name: "Slipway" }, "“Slip”, now “Slipway”"],
    ["a move", { name: "Slip", below: "Works" }, "“Slip”, below Works"],
    [
      "a season",
      { place: "Slip", theme: "Midwinter", from: "2026-12-01", until: "2026-12-31" },
      "“Midwinter”, at Slip, 2026-12-01 to 2026-12-31",
    ],
    [
      "a failed delivery, with its reason in words",
      { place: "Hull Inspections", release: "Harbour 1", fault: "feature-off" },
      "“Harbour 1”, at Hull Inspections, because themes are switched off there",
    ],
    [
      "an accepted finding, with why and until when",
      {
        theme: "Freight",
        kind: "short",
        over: "link",
        ground: "canvas",
        scheme: "dark",
        level: "standard",
        reason: "new brand in spring",
        until: "2027-03-01",
      },
      "“Freight”, Link on canvas, in dark, until 2027-03-01, “new brand in spring”",
    ],
    [
      "a policy",
      { conformance: "AAA", shortfall: "refuse", waivers: false },
      "level AAA, refuses what falls short, none accepted",
    ],
    [
      "slots, by name, cut and counted",
      { place: "Slip", slots: ["a", "b", "c", "d", "e"] },
      "at Slip, a, b, c, d and 1 more",
    ],
    ["a slot map", { platform: "sluice", slots: { bar: "accent" } }, "of sluice, bar"],
    ["nothing where there is nothing to say", { theme: null, requestId: "x" }, ""],
  ])("%s", (_, detail, words) => expect(detailWords(detail)).toBe(words));

  test("each fault in words, none as its code", () => {
    for (const code of Object.keys(FAULTS)) {
      const words = detailWords({ fault: code });
      expect(words).toMatch(/^because \S+ .+/);
      expect(words).not.toBe(`because ${code}`);
    }
  });
});

test("how an estate stands names each standing that somebody has, what needs something first", () => {
  expect(summaryWords([])).toBe("No place is delivered to yet.");
  expect(summaryWords(["live"])).toBe("One place is delivered to: 1 as they should be.");
  const all = ["live", "due", "failed", "live", "no-release", "drifted", "under-way"] as const;
  expect(summaryWords(all)).toBe(
    "7 places are delivered to: 1 not delivered, 1 changed elsewhere, 1 with something newer to deliver, 1 whose theme is not released, 1 under way, 2 as they should be.",
  );
});
