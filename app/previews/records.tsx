import { useState } from "react";
import { type PreviewProps, shownAs } from "./page.ts";

const ROWS = [
  { id: "M-2041", cargo: "Timber", tonnes: 18, status: "success", words: "Cleared" },
  { id: "M-2042", cargo: "Salt", tonnes: 42, status: "warning", words: "Late" },
  { id: "M-2043", cargo: "Machine parts", tonnes: 7, status: "danger", words: "Held" },
  { id: "M-2044", cargo: "Grain", tonnes: 65, status: "info", words: "At sea" },
] as const;

/** An admin table: selection, sorting, status chips, row actions, a dialog and a short message. */
export function RecordsPreview({ shown }: PreviewProps) {
  const [chosen, setChosen] = useState<string[]>(["M-2042"]);
  const [rising, setRising] = useState(true);
  const [asking, setAsking] = useState(false);
  const [done, setDone] = useState(false);
  const rows = [...ROWS].sort((a, b) => (rising ? a.tonnes - b.tonnes : b.tonnes - a.tonnes));
  const toggle = (id: string) =>
    setChosen(chosen.includes(id) ? chosen.filter((c) => c !== id) : [...chosen, id]);
  return (
    <>
      <div className="header" data-roles="header header-text">
        <span className="name">Manifest</span>
        <span className="small">Tarn Isle Freight</span>
      </div>
      <div className="stack" style={{ padding: "1rem" }}>
        <div className="row between">
          <h1 data-roles="canvas-text canvas">Consignments</h1>
          <div className="row">
            <button
              type="button"
              className="action"
              data-roles="action action-text action-hover action-pressed"
              {...shownAs(shown)}
            >
              New consignment
            </button>
            <button
              type="button"
              className="soft"
              disabled={chosen.length === 0}
              data-roles="action-soft action-soft-text"
              onClick={() => setAsking(true)}
            >
              Release {chosen.length}
            </button>
          </div>
        </div>
        <div className="panel" style={{ overflowX: "auto", padding: 0 }} data-roles="panel line">
          <table>
            <thead>
              <tr>
                <th>
                  <span className="small">Pick</span>
                </th>
                <th>Number</th>
                <th>Cargo</th>
                <th aria-sort={rising ? "ascending" : "descending"}>
                  <button
                    type="button"
                    onClick={() => setRising(!rising)}
                    data-roles="panel-text panel"
                  >
                    Tonnes {rising ? "↑" : "↓"}
                  </button>
                </th>
                <th>Status</th>
              </tr>
            </thead>
            <tbody>
              {rows.map((row) => (
                <tr
                  key={row.id}
                  aria-selected={chosen.includes(row.id)}
                  data-roles={
                    chosen.includes(row.id)
                      ? "action-soft action-soft-text"
                      : "panel-text panel line"
                  }
                >
                  <td>
                    <input
                      type="checkbox"
                      aria-label={`Pick ${row.id}`}
                      checked={chosen.includes(row.id)}
                      onChange={() => toggle(row.id)}
                      data-roles="action"
                    />
                  </td>
                  <td>{row.id}</td>
                  <td>{row.cargo}</td>
                  <td>{row.tonnes}</td>
                  <td>
                    <span
                      className={`chip ${row.status} small`}
                      data-roles={`${row.status} ${row.status}-text`}
                    >
                      {row.words}
                    </span>
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </div>
        {asking ? (
          <div
            className="panel stack"
            role="alertdialog"
            aria-label="Release"
            data-roles="panel panel-text line"
          >
            <h2>Release {chosen.length} consignments?</h2>
            <p className="muted" data-roles="panel-text-muted panel">
              The customers are told at once.
            </p>
            <div className="row">
              <button
                type="button"
                className="action"
                data-roles="action action-text"
                onClick={() => {
                  setAsking(false);
                  setDone(true);
                }}
              >
                Release
              </button>
              <button
                type="button"
                className="soft"
                data-roles="action-soft action-soft-text"
                onClick={() => setAsking(false)}
              >
                Keep
              </button>
            </div>
          </div>
        ) : null}
        {done ? (
          <p className="note success" data-roles="success-soft-text success-soft success-line">
            Released. The customers were told.
          </p>
        ) : null}
      </div>
    </>
  );
}
