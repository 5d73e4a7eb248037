import { useState } from "react";
import { type PreviewProps, shownAs } from "./page.ts";

const NEWS = [
  {
    title: "Winter timetable starts on the Saltholm crossing",
    tag: "Sailings",
    text: "First sailing moves to 05:40.",
  },
  {
    title: "Slip two closed for repairs until Friday",
    tag: "Harbour",
    text: "Vehicles board by slip one.",
  },
  {
    title: "Lifejacket checks: this quarter's list",
    tag: "Safety",
    text: "Every locker on the car deck is due.",
  },
];
const SECTIONS = ["Home", "Sailings", "Harbour", "Safety"];

/** An intranet's home: navigation, search, news, people, events, a message and a form. */
export function HomePreview({ shown }: PreviewProps) {
  const [section, setSection] = useState("Home");
  const [search, setSearch] = useState("");
  const [sent, setSent] = useState(false);
  const news = NEWS.filter(
    (n) =>
      (section === "Home" || n.tag === section) &&
      n.title.toLowerCase().includes(search.toLowerCase()),
  );
  return (
    <>
      <div className="header" data-roles="header header-text">
        <span className="name" data-roles="header-text header">
          Quayside
        </span>
        <input
          aria-label="Search the news"
          placeholder="News and people"
          style={{ maxWidth: "12rem" }}
          value={search}
          onChange={(e) => setSearch(e.target.value)}
          data-roles="field field-text field-hint field-line"
        />
      </div>
      <div className="nav" data-roles="nav nav-text line">
        {SECTIONS.map((name) => (
          <button
            key={name}
            type="button"
            aria-current={section === name ? "page" : undefined}
            data-roles={section === name ? "nav-current nav-current-text" : "nav-text nav"}
            onClick={() => setSection(name)}
          >
            {name}
          </button>
        ))}
      </div>
      <div className="columns">
        <div className="stack">
          <p className="note info" data-roles="info-soft-text info-soft info-line">
            <strong>Weather:</strong> gusts of 38 knots after 16:00.
          </p>
          <h1 data-roles="canvas-text canvas">{section === "Home" ? "Good morning" : section}</h1>
          {news.map((n) => (
            <div key={n.title}>
              <span className="chip tag small" data-roles="accent-soft accent-soft-text">
                {n.tag}
              </span>
              <h2 className="minor">
                <a href="#news" data-roles="link link-hover" {...shownAs(shown)}>
                  {n.title}
                </a>
              </h2>
              <p className="muted" data-roles="canvas-text-muted canvas">
                {n.text}{" "}
                <a className="seen" href="#rota" data-roles="link-visited">
                  Rota
                </a>
              </p>
            </div>
          ))}
          {news.length === 0 ? (
            <p className="note warning" data-roles="warning-soft-text warning-soft warning-line">
              Nothing found. Try a single word.
            </p>
          ) : null}
          <p>
            <mark data-roles="mark mark-text">New:</mark> crew meals can be ordered until ten.
          </p>
        </div>
        <div className="stack">
          <form
            className="panel stack"
            data-roles="panel line"
            onSubmit={(e) => {
              e.preventDefault();
              setSent(true);
            }}
          >
            <h2 data-roles="panel-text panel">Report a defect</h2>
            <label>
              Where
              <input
                placeholder="Deck, cabin or slip"
                data-roles="field field-text field-hint field-line"
              />
            </label>
            <div className="row">
              <button
                className="action"
                data-roles="action action-text action-hover action-pressed"
                type="submit"
                {...shownAs(shown)}
              >
                Send
              </button>
              <button
                className="soft"
                data-roles="action-soft action-soft-text action-soft-hover"
                type="reset"
                {...shownAs(shown)}
              >
                Clear
              </button>
              <button
                className="accent"
                data-roles="accent accent-text accent-hover"
                type="button"
                {...shownAs(shown)}
              >
                Call
              </button>
            </div>
            {sent ? (
              <p className="note success" data-roles="success-soft-text success-soft success-line">
                Thank you. The watch was told.
              </p>
            ) : null}
          </form>
          <div className="panel stack" data-roles="panel panel-text">
            <h2>On watch</h2>
            {["Ada Quist", "Bo Lind"].map((name) => (
              <p key={name} className="row">
                <span className="person small" data-roles="inset inset-text">
                  {name.replace(/[a-z ]+/g, "")}
                </span>
                {name}{" "}
                <span className="muted small" data-roles="panel-text-muted">
                  until 14:00
                </span>
              </p>
            ))}
            <p className="inset small" data-roles="inset inset-text">
              Thursday 09:30: drill on the car deck
            </p>
          </div>
        </div>
      </div>
      <div className="footer small" data-roles="footer footer-text">
        For crew and shore staff
      </div>
    </>
  );
}
