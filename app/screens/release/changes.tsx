import { roleWords } from "../../wording/roles.ts";
import type { Since } from "./since.ts";

/** What changed since the last release: settings in words, roles in colours with CIEDE2000. */
export function Changes({ since, name }: { since: Since; name: string }) {
  const { settings, roles, gained, lost } = since;
  return (
    <section aria-labelledby="changes">
      <h2 id="changes">Since “{name}”</h2>
      {settings.length === 0 && roles.length === 0 ? (
        <p className="mt-2 text-faint">Nothing has changed. A release would be the same again.</p>
      ) : (
        <>
          <ul className="mt-2 text-sm">
            {settings.map((line) => (
              <li key={line.name}>
                <strong className="font-semibold">{line.name}:</strong> {line.before} → {line.after}
              </li>
            ))}
            <li className="text-faint">
              {roles.length} role colours differ; {gained} findings more, {lost} fewer.
            </li>
          </ul>
          <section className="mt-2 border border-hair bg-surface" aria-label="Roles that change">
            <table className="w-full text-sm">
              <thead>
                <tr className="text-left">
                  <th scope="col" className="px-3 py-1.5">
                    Role
                  </th>
                  <th scope="col">Scheme</th>
                  <th scope="col">Before, after</th>
                  <th scope="col" className="px-3 text-right">
                    ΔE
                  </th>
                </tr>
              </thead>
              <tbody>
                {roles.map((line) => (
                  <tr key={`${line.scheme} ${line.role}`} className="border-t border-hair">
                    <th scope="row" className="px-3 py-1 text-left font-normal">
                      {roleWords(line.role)}
                    </th>
                    <td>{line.scheme}</td>
                    <td>
                      <span className="flex items-center">
                        <Swatch colour={line.before} />
                        <Swatch colour={line.after} />
                        <span className="sr-only">
                          {line.before} to {line.after}
                        </span>
                      </span>
                    </td>
                    <td className="number px-3 text-right text-xs">{line.difference.toFixed(1)}</td>
                  </tr>
                ))}
              </tbody>
            </table>
          </section>
        </>
      )}
    </section>
  );
}

function Swatch({ colour }: { colour: string }) {
  return (
    <span
      aria-hidden="true"
      className="h-5 w-7 border border-hair [forced-color-adjust:none]"
      style={{ background: colour }}
    />
  );
}
