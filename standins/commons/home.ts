import { escapeHtml } from "../html.ts";
import type { Site } from "./state.ts";

interface HomeParts {
  site: Site;
  slots: Record<string, string>;
  search: string;
  /** Where a defect was just reported; empty when the page was opened otherwise. */
  reported: string;
}

const NEWS = [
  {
    title: "Winter timetable starts on the Saltholm crossing",
    text: "First sailing moves to 05:40. Crew rosters from the 30th are in the rota.",
    tag: "Sailings",
  },
  {
    title: "Slip two closed for repairs until Friday",
    text: "Vehicles board by slip one. Allow ten minutes more at the morning peak.",
    tag: "Harbour",
  },
  {
    title: "Lifejacket checks: this quarter's list",
    text: "Every locker on the car deck is due. The list names who checks which.",
    tag: "Safety",
  },
];

/** A site's home page. Its whole look comes from the slots of the palette that the site holds. */
export function home({ site, slots, search, reported }: HomeParts): string {
  const found = NEWS.filter((n) =>
    `${n.title} ${n.text}`.toLowerCase().includes(search.toLowerCase()),
  );
  return `<!doctype html>
<html lang="en">
<head>
<meta charset="utf-8">
<meta name="viewport" content="width=device-width, initial-scale=1">
<title>${escapeHtml(site.title)}</title>
<link rel="icon" href="data:,">
<style>
:root { ${Object.entries(slots)
    .map(([slot, value]) => `--${slot}: #${value};`)
    .join(" ")} }
${STYLE}
</style>
</head>
<body>
<header class="masthead">
  <a class="name" href="?">${escapeHtml(site.title)}</a>
  <form role="search" class="search">
    <label for="search">Search</label>
    <input id="search" name="search" type="search" value="${escapeHtml(search)}" placeholder="News and people">
    <button class="quiet">Find</button>
  </form>
</header>
<div class="columns">
<nav aria-label="Site"><ul>
  <li><a aria-current="page" href="?">Home</a></li>
  <li><a href="?search=sailing">Sailings</a></li>
  <li><a href="?search=slip">Harbour</a></li>
  <li><a href="?search=locker">Safety</a></li>
</ul></nav>
<main>
  <p class="note tell"><strong>Weather:</strong> gusts of 38 knots expected after 16:00.</p>
  ${reported ? `<p class="note good">Thank you. The watch was told about ${escapeHtml(reported)}.</p>` : ""}
  <h1>${search ? `News with “${escapeHtml(search)}”` : "Good morning"}</h1>
  ${found
    .map(
      (n) =>
        `<article><span class="tag">${n.tag}</span><h2><a href="?search=${encodeURIComponent(
          n.title.split(" ")[0] ?? "",
        )}">${n.title}</a></h2><p>${n.text}</p></article>`,
    )
    .join("\n  ")}
  ${found.length === 0 ? '<p class="note alert">Nothing found. Try a single word.</p>' : ""}
</main>
<aside>
  <section class="sheet">
    <h2>Report a defect</h2>
    <form id="defect" class="report">
      <label for="where">Where</label>
      <input id="where" name="where" placeholder="Deck, cabin or slip" required>
      <label for="what">What is wrong</label>
      <textarea id="what" name="what" rows="3"></textarea>
      <p><button class="primary">Send report</button> <button type="reset" class="quiet">Clear</button></p>
    </form>
  </section>
  <section class="sheet">
    <h2>Done today</h2>
    <p class="note good">Fuel dip recorded for both vessels.</p>
    <p class="faint">Updated by the night watch.</p>
  </section>
</aside>
</div>
<footer>${escapeHtml(site.title)} · for crew and shore staff</footer>
</body>
</html>`;
}

const STYLE = `
* { box-sizing: border-box; }
body { margin: 0; background: var(--ground); color: var(--ink); font: 1rem/1.5 system-ui, sans-serif; min-height: 100vh; display: flex; flex-direction: column; }
::selection { background: var(--picked); color: var(--pickedInk); }
:focus-visible { outline: 3px solid var(--ring); outline-offset: 2px; }
.masthead { background: var(--masthead); color: var(--mastheadInk); display: flex; justify-content: space-between; align-items: center; padding: 0.9rem 1.5rem; }
.masthead :focus-visible { outline-color: var(--mastheadInk); }
.name { color: inherit; font-size: 1.4rem; font-weight: 700; text-decoration: none; }
.search { display: flex; gap: 0.5rem; align-items: center; }
.columns { display: grid; grid-template-columns: 11rem 1fr 19rem; gap: 1.5rem; padding: 1.5rem; flex: 1; }
nav { background: var(--rail); color: var(--railInk); border: 1px solid var(--hairline); align-self: start; }
nav ul { list-style: none; margin: 0; padding: 0.5rem; }
nav a { display: block; padding: 0.5rem 0.75rem; color: inherit; text-decoration: none; }
nav a[aria-current] { background: var(--railHere); color: var(--railHereInk); font-weight: 700; }
main h1 { margin: 0.75rem 0; font-size: 1.75rem; }
article { border-bottom: 1px solid var(--hairline); padding: 0.75rem 0; }
article h2 { font-size: 1.15rem; margin: 0.35rem 0; }
article p { margin: 0; color: var(--faintInk); }
article a { color: var(--anchor); }
article a:visited { color: var(--anchorSeen); }
article a:hover { color: var(--anchorOver); }
.tag { background: var(--tag); color: var(--tagInk); font-size: 0.85rem; padding: 0.1rem 0.5rem; }
.sheet { background: var(--sheet); color: var(--sheetInk); border: 1px solid var(--hairline); padding: 1rem 1.25rem; margin-bottom: 1.25rem; }
.sheet h2 { margin: 0 0 0.5rem; font-size: 1.1rem; }
.faint { color: var(--sheetFaintInk); margin: 0; }
.report label { display: block; margin-top: 0.5rem; }
input, textarea { background: var(--entry); color: var(--entryInk); border: 1px solid var(--entryEdge); padding: 0.4rem 0.5rem; font: inherit; }
.report input, .report textarea { width: 100%; }
::placeholder { color: var(--entryPrompt); opacity: 1; }
button { font: inherit; border: 0; padding: 0.45rem 0.9rem; cursor: pointer; }
.primary { background: var(--button); color: var(--buttonInk); }
.primary:hover { background: var(--buttonOver); }
.primary:active { background: var(--buttonDown); }
.quiet { background: var(--quietButton); color: var(--quietButtonInk); }
.quiet:hover { background: var(--quietButtonOver); }
.note { border-left: 4px solid; padding: 0.5rem 0.75rem; margin: 0 0 0.5rem; }
.tell { background: var(--tellNote); color: var(--tellNoteInk); border-color: var(--tellEdge); }
.good { background: var(--goodNote); color: var(--goodNoteInk); border-color: var(--goodEdge); }
.alert { background: var(--alertNote); color: var(--alertNoteInk); border-color: var(--alertEdge); }
footer { background: var(--foot); color: var(--footInk); padding: 1rem 1.5rem; font-size: 0.9rem; }
@media (max-width: 60rem) { .columns { grid-template-columns: 1fr; } }
`;
