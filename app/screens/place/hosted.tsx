import { useState } from "react";
import type { SchemeChoice } from "#core/exchange/snippet.ts";
import { Choice } from "../../components/choice.tsx";
import { Copy } from "../../components/copy.tsx";
import type { Route } from "./+types/route";

type Hosted = Route.ComponentProps["loaderData"]["hosted"];

/** The stylesheet that Livery hosts for the place, and the lines that link it. */
export function Hosted({ hosted }: { hosted: Hosted }) {
  const [choice, setChoice] = useState<SchemeChoice>("reader");
  const lines = hosted.snippets[choice];
  return (
    <section aria-labelledby="hosted" className="border border-hair bg-surface p-5">
      <h2 id="hosted">Hosted stylesheet</h2>
      <p className="mt-1 text-sm text-faint">
        For applications that link a stylesheet. It always shows what was delivered here last.
      </p>
      <div className="mt-2 flex items-center justify-between gap-2">
        <Choice<SchemeChoice>
          label="Scheme"
          value={choice}
          options={[
            { value: "reader", label: "readers may choose" },
            { value: "system", label: "as the reader's system" },
            { value: "light", label: "always light" },
            { value: "dark", label: "always dark" },
          ]}
          onChange={setChoice}
        />
        <Copy text={lines} what="the lines" />
      </div>
      <pre
        // biome-ignore lint/a11y/noNoninteractiveTabindex: a scrolling region must be reachable by keyboard
        tabIndex={0}
        className="mt-2 max-h-32 overflow-auto border border-hair bg-ground p-2 number text-xs whitespace-pre-wrap break-all"
      >
        {lines}
      </pre>
      {hosted.fixed ? (
        <details className="mt-2 text-sm">
          <summary className="go">Fixed to what is live now, with its integrity value</summary>
          <div className="mt-1 flex justify-end">
            <Copy text={hosted.fixed} what="the fixed lines" />
          </div>
          <pre
            // biome-ignore lint/a11y/noNoninteractiveTabindex: a scrolling region must be reachable by keyboard
            tabIndex={0}
            className="mt-1 overflow-auto border border-hair bg-ground p-2 number text-xs whitespace-pre-wrap break-all"
          >
            {hosted.fixed}
          </pre>
        </details>
      ) : null}
    </section>
  );
}
