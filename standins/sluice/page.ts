import { escapeHtml, head } from "../html.ts";
import type { App } from "./state.ts";

const PLAIN = {
  day: {
    floor: "#f4f4f4",
    floorInk: "#222222",
    floorFaintInk: "#5a5a5a",
    board: "#ffffff",
    boardInk: "#222222",
    rule: "#cfcfcf",
    bar: "#555555",
    barInk: "#ffffff",
    entry: "#ffffff",
    entryInk: "#222222",
    entryRule: "#767676",
    press: "#555555",
    pressOver: "#444444",
    pressInk: "#ffffff",
    softPress: "#e2e2e2",
    softPressInk: "#222222",
    anchor: "#333333",
    ring: "#222222",
    wrong: "#eeeeee",
    wrongInk: "#222222",
    wrongRule: "#666666",
    right: "#eeeeee",
    rightInk: "#222222",
    rightRule: "#666666",
  },
};
const PLAIN_TONES = ["#dddddd", "#bbbbbb", "#999999", "#777777", "#555555"];

/** An app: a booking form whose look is its theme's, and a tide chart whose bars refer to tones. */
export function appPage(
  app: App,
  scheme: "day" | "night",
  berth: string | undefined,
  settings: string,
): string {
  const parts = { ...PLAIN.day, ...(app.theme?.day ?? {}), ...(app.theme?.[scheme] ?? {}) };
  const tones = [300, 400, 500, 600, 700].map(
    (step, i) => app.theme?.tones[`brand-${step}`] ?? (PLAIN_TONES[i] as string),
  );
  const vars = Object.entries(parts)
    .map(([part, hex]) => `--${part}: ${hex};`)
    .join(" ");
  const other = scheme === "day" ? "night" : "day";
  return `${head(app.title, `:root { ${vars} color-scheme: ${scheme === "day" ? "light" : "dark"}; }${STYLE}`)}
<body>
<header><strong>${escapeHtml(app.title)}</strong><a href="?scheme=${other}">Show by ${other}</a></header>
<main>
<section aria-labelledby="book">
<h1 id="book">Book a berth</h1>
<p class="faint">Arrivals from 06:00. The harbour office answers within the hour.</p>
${berth ? `<p class="note right">Berth ${escapeHtml(berth)} is held for you.</p>` : `<p class="note wrong">Berth 4 is closed for repairs.</p>`}
<form>
<input type="hidden" name="scheme" value="${scheme}">
<p><label for="vessel">Vessel</label><input id="vessel" name="vessel"></p>
<p><label for="berth">Berth</label><input id="berth" name="berth" required></p>
<p><button class="press">Hold the berth</button> <button class="soft" type="reset">Clear</button> <a href="#tides">Tides</a></p>
</form>
</section>
<section aria-labelledby="tides">
<h2 id="tides">Tides today</h2>
<div class="tide" role="img" aria-label="Low 0.6 m at 03:10, high 4.1 m at 09:20">${tones.map((hex, i) => `<i style="background:${hex};height:${30 + i * 17}%"></i>`).join("")}</div>
<p class="faint">Bars are drawn in the app's tones.</p>
</section>
</main>
<footer><form method="post" action="${settings}" class="settings"><label><input type="checkbox" name="themingOn"${app.themingOn ? " checked" : ""}> Themes apply to this app</label> <button class="soft">Save settings</button></form></footer>
</body></html>`;
}

const STYLE = `
* { box-sizing: border-box; }
body { margin: 0; font: 1rem/1.5 system-ui, sans-serif; background: var(--floor); color: var(--floorInk); min-height: 100vh; display: flex; flex-direction: column; }
:focus-visible { outline: 3px solid var(--ring); outline-offset: 2px; }
header { background: var(--bar); color: var(--barInk); padding: .9rem 1.5rem; display: flex; justify-content: space-between; font-size: 1.1rem; }
header a { color: inherit; } header :focus-visible { outline-color: var(--barInk); }
main { display: grid; grid-template-columns: 1.3fr 1fr; gap: 1.5rem; padding: 1.5rem; flex: 1; align-items: start; }
section { background: var(--board); color: var(--boardInk); border: 1px solid var(--rule); padding: 1.25rem; }
h1, h2 { margin: 0 0 .5rem; font-size: 1.3rem; }
.faint { color: inherit; margin: 0 0 .75rem; font-size: .95rem; }
label { display: block; }
input:not([type=checkbox]) { width: 100%; font: inherit; padding: .45rem; background: var(--entry); color: var(--entryInk); border: 1px solid var(--entryRule); }
button { font: inherit; border: 0; padding: .5rem 1rem; cursor: pointer; }
.press { background: var(--press); color: var(--pressInk); } .press:hover { background: var(--pressOver); }
.soft { background: var(--softPress); color: var(--softPressInk); }
a { color: var(--anchor); }
.note { padding: .5rem .75rem; border-left: 4px solid; margin: 0 0 .75rem; }
.wrong { background: var(--wrong); color: var(--wrongInk); border-color: var(--wrongRule); }
.right { background: var(--right); color: var(--rightInk); border-color: var(--rightRule); }
.tide { display: flex; align-items: end; gap: .5rem; height: 9rem; margin: .5rem 0; } .tide i { flex: 1; }
footer { padding: 1rem 1.5rem; border-top: 1px solid var(--rule); } .settings { display: flex; gap: 1rem; align-items: center; }
@media (max-width: 50rem) { main { grid-template-columns: 1fr; } }
`;
