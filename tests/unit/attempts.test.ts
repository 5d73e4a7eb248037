import fc from "fast-check";
import { type Fault, isPassing, waitOf } from "#connectors/connector.ts";
import { MOST_ATTEMPTS, MOST_BEGINNINGS, pauseAfter, spreadWait } from "#core/estate/attempts.ts";

test("the pause doubles with every attempt that failed", () => {
  expect([1, 2, 3, 4].map((n) => pauseAfter(n, 2000))).toEqual([2000, 4000, 8000, 16_000]);
});

test("a wait is never shorter than was asked for, and those who waited often come back further apart", () => {
  fc.assert(
    fc.property(
      fc.double({ min: 0, max: 60_000, noNaN: true }),
      fc.integer({ min: 1, max: 200 }),
      fc.double({ min: 0, max: 1, noNaN: true }),
      (asked, times, chance) => {
        const wait = spreadWait(asked, times, chance);
        expect(wait).toBeGreaterThanOrEqual(asked);
        expect(wait).toBeLessThanOrEqual(asked + Math.max(asked, 200) * 8 + 1);
        expect(spreadWait(asked, times + 1, chance)).toBeGreaterThanOrEqual(wait);
      },
    ),
  );
});

test("patience has an end, but a later one than faults", () => {
  expect(MOST_BEGINNINGS).toBeGreaterThan(MOST_ATTEMPTS);
});

test("what may pass by itself is tried again; what a person must mend is not", () => {
  expect(isPassing({ code: "changed-meanwhile", file: "board" })).toBe(true);
  expect(isPassing({ code: "not-shown-yet", retryAfterMs: 0 })).toBe(true);
  expect(waitOf({ code: "not-shown-yet", retryAfterMs: 0 })).toBe(0);
  expect(waitOf({ code: "unreachable", address: "" })).toBeNull();
  const lasting: Fault[] = [
    { code: "wrong-credential", account: "" },
    { code: "credential-unreadable" },
    { code: "refused", reason: "" },
    { code: "feature-off", key: "" },
    { code: "read-back-differs", slots: [] },
  ];
  for (const fault of lasting)
    expect({ fault, passes: isPassing(fault) }).toEqual({ fault, passes: false });
});
