import type { FaultSettings } from "./faults.ts";
import { escapeHtml } from "./html.ts";

const WORDS: Record<keyof FaultSettings, string> = {
  latencyMs: "Every call waits (ms)",
  holdReadsMs: "Reading back waits longer (ms)",
  showAfterMs: "Changes show after (ms)",
  throttlePerSecond: "Most calls a second (0: no limit)",
  down: "The line drops",
  rejectCredentials: "Every password is refused",
  expireTokens: "Tokens run out at once",
  refuseShare: "Share of changes refused (0 to 1)",
  loseShare: "Share of answers lost after the change (0 to 1)",
  partial: "Uploads are stored in part",
  garble: "Uploads are stored with one value wrong",
  nonsense: "Answers are no answer",
};

const DONE: Record<string, string> = {
  saved: "The faults are set.",
  changed: "Something was changed there.",
  "no-such-place": "There is no such place.",
};

/** The page on which a platform's faults are switched. */
export function faultPage(platform: string, settings: FaultSettings, done: string | undefined) {
  const rows = (Object.keys(WORDS) as (keyof FaultSettings)[]).map((name) => {
    const value = settings[name];
    const input =
      typeof value === "boolean"
        ? `<input type="checkbox" id="${name}" name="${name}"${value ? " checked" : ""}>`
        : `<input type="number" id="${name}" name="${name}" min="0" step="any" value="${value}">`;
    return `<p><label for="${name}">${WORDS[name]}</label>${input}</p>`;
  });
  return `<!doctype html>
<html lang="en"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width">
<title>Faults of ${escapeHtml(platform)}</title><link rel="icon" href="data:,">
<style>
:root { color-scheme: light dark; }
body { font: 1rem/1.4 system-ui, sans-serif; margin: 2rem auto; max-width: 34rem; padding: 0 1rem; }
form { border: 1px solid; padding: 1rem; margin-bottom: 1.5rem; }
p { display: flex; justify-content: space-between; gap: 1rem; margin: 0 0 .6rem; }
input[type=number], input[type=text] { width: 9rem; font: inherit; }
button { font: inherit; padding: .3rem .8rem; }
</style></head><body><main>
<h1>Faults of ${escapeHtml(platform)}</h1>
${done && DONE[done] ? `<p role="status">${DONE[done]}</p>` : ""}
<form method="post" action="?">${rows.join("\n")}<button>Set these faults</button></form>
<form method="post" action="faults/tamper"><p><label for="key">Change something behind everybody's back at</label><input type="text" id="key" name="key" required></p><button>Change it</button></form>
</main></body></html>`;
}
