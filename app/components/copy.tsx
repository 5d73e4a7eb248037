import { useState } from "react";

const SAID_FOR_MS = 1500;

/** Copies a text in one press and says so. */
export function Copy({ text, what }: { text: string; what: string }) {
  const [copied, setCopied] = useState(false);
  const copy = async () => {
    await navigator.clipboard.writeText(text);
    setCopied(true);
    setTimeout(() => setCopied(false), SAID_FOR_MS);
  };
  return (
    <button type="button" className="press px-2 py-0.5 text-sm" onClick={copy}>
      {copied ? "Copied" : "Copy"}
      <span className="sr-only"> {what}</span>
    </button>
  );
}
