/** Who decides which scheme a page is shown in. */
export type SchemeChoice = "reader" | "system" | "light" | "dark";

export interface SnippetOptions {
  /** Address of the stylesheet. */
  address: string;
  /** Subresource Integrity value; only for an address whose content never changes. */
  integrity: string | null;
  choice: SchemeChoice;
}

/**
 * Lines to paste into a page's head. Where readers may choose, a script sets their choice before
 * anything is painted, so that nothing flashes, and offers `livery.scheme("light" | "dark" |
 * "system")` to the page's own switch. Where one scheme is fixed, an attribute does.
 */
export function snippet({ address, integrity, choice }: SnippetOptions): string {
  const sealed = integrity ? ` integrity="${integrity}" crossorigin="anonymous"` : "";
  const link = `<link rel="stylesheet" href="${address}"${sealed}>`;
  if (choice === "system") return `${link}\n`;
  const script = choice === "reader" ? READERS_CHOICE : fixed(choice);
  return `<script>${script}</script>\n${link}\n`;
}

const fixed = (scheme: "light" | "dark"): string =>
  `document.documentElement.dataset.scheme="${scheme}"`;

/** Keeps the reader's choice in the browser's own store, where that may be used. */
const READERS_CHOICE = [
  "(function(r,k){",
  'function put(s){if(s==="light"||s==="dark")r.dataset.scheme=s;else delete r.dataset.scheme}',
  "var s=null;try{s=localStorage.getItem(k)}catch(e){}put(s);",
  "window.livery={scheme:function(s){put(s);try{localStorage.setItem(k,s)}catch(e){}}};",
  '})(document.documentElement,"livery-scheme")',
].join("");
