import type { PreviewProps } from "./page.ts";
import { shownAs } from "./page.ts";

/** Long reading: headings, links, a quote, code, and notes of four kinds. */
export function ReadingPreview({ shown }: PreviewProps) {
  return (
    <>
      <div className="header" data-roles="header header-text">
        <span className="name">Engine room handbook</span>
      </div>
      <div className="long stack">
        <h1 data-roles="canvas-text canvas">Before the first sailing</h1>
        <p className="muted" data-roles="canvas-text-muted canvas">
          Twelve minutes to read. Changed on 3 November.
        </p>
        <p>
          The watch begins with the{" "}
          <a href="#round" data-roles="link link-hover" {...shownAs(shown)}>
            round of the engine room
          </a>
          . What was found on the last round stands in the{" "}
          <a className="seen" href="#log" data-roles="link-visited">
            log of the night
          </a>
          ; <mark data-roles="mark mark-text">read it first</mark>.
        </p>
        <h2>Oil and water</h2>
        <p>
          Both are read cold. A level that fell by more than a finger since the evening is reported
          before the start.
        </p>
        <blockquote data-roles="line-strong canvas-text">
          <p>“An engine tells you most when nobody is in a hurry.”</p>
        </blockquote>
        <pre className="inset small" data-roles="inset inset-text">
          <code>dip --tank port --cold{"\n"}level: 412 mm</code>
        </pre>
        <h2>What to watch for</h2>
        <p className="note info" data-roles="info-soft-text info-soft info-line">
          <strong>Note.</strong> The port gauge reads two millimetres high.
        </p>
        <p className="note success" data-roles="success-soft-text success-soft success-line">
          <strong>Good.</strong> A clear sight glass needs no sample.
        </p>
        <p className="note warning" data-roles="warning-soft-text warning-soft warning-line">
          <strong>Careful.</strong> The rail is hot for an hour after stopping.
        </p>
        <p className="note danger" data-roles="danger-soft-text danger-soft danger-line">
          <strong>Never</strong> open the crankcase within twenty minutes.
        </p>
      </div>
    </>
  );
}
