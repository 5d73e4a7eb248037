import type { CSSProperties, ReactNode } from "react";
import { toHex } from "#core/colour/srgb.ts";
import type { SchemeColours } from "#core/theme/reason.ts";
import { ROLES, type Scheme } from "#core/theme/roles.ts";

interface PreviewProps {
  colours: SchemeColours;
  scheme: Scheme;
}

/** A picture of an intranet page in one scheme, painted with nothing but roles. */
export function Preview({ colours, scheme }: PreviewProps) {
  const roles = Object.fromEntries(
    ROLES.map((role) => [`--r-${role}`, toHex(colours[role].colour)]),
  );
  return (
    <div
      role="img"
      aria-label={`An intranet page in the ${scheme} scheme`}
      data-preview={scheme}
      style={{ ...roles, ...paint("canvas", "canvas-text"), colorScheme: scheme } as CSSProperties}
      className="flex h-full flex-col overflow-hidden text-[13px] leading-snug [forced-color-adjust:none]"
    >
      <Band over="header" className="flex items-center justify-between px-3.5 py-2">
        <strong className="text-[15px]">Quayside</strong>
        <span
          className="w-36 border px-2 py-0.5 text-[12px]"
          style={{ ...paint("field", "field-hint"), borderColor: role("field-line") }}
        >
          News and people
        </span>
      </Band>
      <Band over="nav" className="flex gap-1 px-2 py-1" edge>
        <span
          className="px-2 py-0.5 font-semibold"
          style={paint("nav-current", "nav-current-text")}
        >
          Home
        </span>
        <span className="px-2 py-0.5">Sailings</span>
        <span className="px-2 py-0.5">Harbour</span>
        <span className="px-2 py-0.5">Safety</span>
      </Band>
      <div className="grid min-h-0 flex-1 grid-cols-[1.25fr_1fr] gap-3 p-3">
        <div className="min-w-0">
          <Note status="info">
            <strong>Weather:</strong> gusts of 38 knots after 16:00.
          </Note>
          <p className="mt-2 text-[15px] font-semibold">Winter timetable starts</p>
          <p className="mt-0.5" style={{ color: role("canvas-text-muted") }}>
            First sailing moves to 05:40.{" "}
            <span className="underline" style={{ color: role("link") }}>
              Crew rosters
            </span>
            ,{" "}
            <span className="underline" style={{ color: role("link-visited") }}>
              berth plan
            </span>
          </p>
          <p className="mt-1.5">
            <Tag fill="accent-soft">Sailings</Tag> <Tag fill="mark">New</Tag>
          </p>
          <div className="mt-2 flex flex-wrap gap-1.5">
            <Tag fill="success">Running</Tag>
            <Tag fill="warning">Late</Tag>
            <Tag fill="danger">Cancelled</Tag>
          </div>
          <Bars />
        </div>
        <div
          className="min-w-0 self-start border p-2.5"
          style={{ ...paint("panel", "panel-text"), borderColor: role("line") }}
        >
          <p className="font-semibold">Report a defect</p>
          <p className="mt-1 text-[12px]">Where</p>
          <span
            className="mt-0.5 block border px-1.5 py-0.5"
            style={{ ...paint("field", "field-text"), borderColor: role("field-line") }}
          >
            Slip two
          </span>
          <span
            className="mt-1.5 block border px-1.5 py-0.5"
            style={{
              ...paint("field", "field-hint"),
              borderColor: role("field-line"),
              outline: `2px solid ${role("focus")}`,
              outlineOffset: 1,
            }}
          >
            What is wrong
          </span>
          <div className="mt-2.5 flex flex-wrap gap-1.5">
            <span className="px-2.5 py-1 font-semibold" style={paint("action", "action-text")}>
              Send
            </span>
            <span className="px-2.5 py-1" style={paint("action-soft", "action-soft-text")}>
              Clear
            </span>
            <span className="px-2.5 py-1" style={paint("accent", "accent-text")}>
              Call
            </span>
          </div>
          <p className="mt-2 px-1.5 py-1 text-[12px]" style={paint("inset", "inset-text")}>
            Last report: 07:12
          </p>
        </div>
      </div>
      <Band over="footer" className="px-3.5 py-1.5 text-[12px]">
        For crew and shore staff
      </Band>
    </div>
  );
}

const role = (name: string): string => `var(--r-${name})`;
const paint = (fill: string, text: string): CSSProperties => ({
  background: role(fill),
  color: role(text),
});

interface BandProps {
  over: "header" | "nav" | "footer";
  className: string;
  edge?: boolean;
  children: ReactNode;
}

function Band({ over, className, edge = false, children }: BandProps) {
  const line = edge ? { borderBottom: `1px solid ${role("line")}` } : {};
  return (
    <div className={className} style={{ ...paint(over, `${over}-text`), ...line }}>
      {children}
    </div>
  );
}

function Note({ status, children }: { status: string; children: ReactNode }) {
  const line = { borderLeft: `3px solid ${role(`${status}-line`)}` };
  return (
    <p className="px-2 py-1" style={{ ...paint(`${status}-soft`, `${status}-soft-text`), ...line }}>
      {children}
    </p>
  );
}

function Tag({ fill, children }: { fill: string; children: ReactNode }) {
  return (
    <span className="inline-block px-1.5 py-px text-[12px]" style={paint(fill, `${fill}-text`)}>
      {children}
    </span>
  );
}

function Bars() {
  const heights = [62, 100, 80, 46, 72, 54, 90, 38];
  return (
    <div className="mt-2.5 flex h-9 items-end gap-1">
      {heights.map((height, i) => (
        <span
          key={height}
          className="flex-1"
          style={{ height: `${height}%`, background: role(`chart-${i + 1}`) }}
        />
      ))}
    </div>
  );
}
