import { escapeHtml, head } from "../html.ts";
import { type Portal, shownFiles } from "./state.ts";

interface Message {
  fill: string;
  ink: string;
  line: string;
}

/** A portal's sign-in page, painted by the files of its look. */
export function portalPage(key: string, portal: Portal, tried: boolean): string {
  const files = shownFiles(portal);
  const at = (name: string) => `${key}/look/${name}`;
  const has = "gangway.css" in files;
  const messages = has
    ? (JSON.parse(
        Buffer.from(files["gangway-messages.json"]?.bytes ?? "e30=", "base64").toString(),
      ) as Record<string, { light: Message; dark: Message }>)
    : {};
  const rule = (scheme: "light" | "dark") =>
    Object.entries(messages)
      .map(
        ([kind, { [scheme]: m }]) =>
          `.${kind} { background: ${m.fill}; color: ${m.ink}; border-color: ${m.line}; }`,
      )
      .join("\n");
  const logo = (scheme: string, shape: string) => `gangway-logo-${scheme}-${shape}.svg`;
  const links = has ? `<link rel="stylesheet" href="${at("gangway.css")}">\n` : "";
  const style = `${STYLE}\n${rule("light")}\n@media (prefers-color-scheme: dark) {\n${rule("dark")}\n}`;
  return `${head(`Sign in · ${portal.title}`, style, links)}
<body>
<header>${
    has
      ? `<picture><source media="(prefers-color-scheme: dark) and (max-width: 40rem)" srcset="${at(logo("dark", "phone"))}"><source media="(max-width: 40rem)" srcset="${at(logo("light", "phone"))}"><source media="(prefers-color-scheme: dark)" srcset="${at(logo("dark", "desktop"))}"><img src="${at(logo("light", "desktop"))}" alt="" height="40"></picture>`
      : ""
  }<strong>${escapeHtml(portal.title)}</strong></header>
<main>
<section class="card" aria-labelledby="sign-in">
<h1 id="sign-in">Sign in</h1>
${tried ? '<p class="message danger">The name or the password is wrong.</p>' : '<p class="message info">Use the name on your crew card.</p>'}
<form>
<p><label for="name">Name</label><input id="name" name="name" autocomplete="username"></p>
<p><label for="word">Password</label><input id="word" name="word" type="password" autocomplete="current-password"></p>
<p><button name="tried">Sign in</button> <a href="?">Forgotten the password?</a></p>
</form>
<p class="message success">All crossings are on time.</p>
<p class="message warning">The portal rests on Sunday from 02:00 to 03:00.</p>
</section>
</main>
</body></html>`;
}

const STYLE = `
* { box-sizing: border-box; }
body { margin: 0; font: 1rem/1.5 system-ui, sans-serif; color-scheme: light dark; background: var(--gangway-deck, #f2f2f2); color: var(--gangway-deck-ink, #222); min-height: 100vh; }
:focus-visible { outline: 3px solid var(--gangway-ring, #222); outline-offset: 2px; }
header { background: var(--gangway-banner, #444); color: var(--gangway-banner-ink, #fff); padding: .75rem 1.5rem; display: flex; gap: 1rem; align-items: center; font-size: 1.2rem; }
header img { display: block; }
main { display: grid; place-items: center; padding: 3rem 1rem; }
.card { width: min(26rem, 100%); background: var(--gangway-card, #fff); color: var(--gangway-card-ink, #222); border: 1px solid var(--gangway-card-line, #ccc); padding: 1.75rem; }
h1 { margin: 0 0 .75rem; font-size: 1.5rem; }
label { display: block; }
input { width: 100%; font: inherit; padding: .45rem; background: var(--gangway-box, #fff); color: var(--gangway-box-ink, #222); border: 1px solid var(--gangway-box-line, #767676); }
button { font: inherit; border: 0; padding: .5rem 1.1rem; background: var(--gangway-go, #555); color: var(--gangway-go-ink, #fff); cursor: pointer; }
button:hover { background: var(--gangway-go-over, #444); }
a { color: var(--gangway-anchor, #333); margin-left: .75rem; }
.message { border-left: 4px solid #777; background: #eee; color: #222; padding: .5rem .75rem; margin: 0 0 .75rem; }
`;
