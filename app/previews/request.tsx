import { useState } from "react";
import { type PreviewProps, shownAs } from "./page.ts";

const STEPS = ["Berth", "Vessel", "Confirm"];
const FIELD = "field field-text field-hint field-line";

/** A low-code request form: every kind of field, errors, steps, what is switched off. */
export function RequestPreview({ shown }: PreviewProps) {
  const [step, setStep] = useState(0);
  const [length, setLength] = useState("-3");
  const wrong = !(Number(length) > 0);
  return (
    <>
      <div className="header" data-roles="header header-text">
        <span className="name">Berth Booking</span>
      </div>
      <form className="long stack" onSubmit={(e) => e.preventDefault()}>
        <ol className="steps small">
          {STEPS.map((name, i) => (
            <li
              key={name}
              aria-current={i === step ? "step" : undefined}
              data-roles={i === step ? "action" : "line-strong"}
            >
              {i + 1}. {name}
            </li>
          ))}
        </ol>
        <h1 data-roles="canvas-text canvas">{STEPS[step]}</h1>
        <div className="columns" style={{ padding: 0 }}>
          <label>
            Quay
            <select defaultValue="North" data-roles={FIELD}>
              <option>North</option>
              <option>East</option>
            </select>
          </label>
          <label>
            Day
            <input type="date" defaultValue="2026-12-03" data-roles={FIELD} />
          </label>
        </div>
        <label>
          Length in metres
          <input
            value={length}
            aria-invalid={wrong || undefined}
            onChange={(e) => setLength(e.target.value)}
            data-roles={wrong ? "danger-line field field-text" : FIELD}
          />
        </label>
        {wrong ? (
          <p className="note danger" data-roles="danger-soft-text danger-soft danger-line">
            A length is more than nought. Write it as 24.5.
          </p>
        ) : null}
        <fieldset style={{ border: 0, margin: 0, padding: 0 }} className="row">
          <legend>Needs</legend>
          <label className="row">
            <input type="checkbox" defaultChecked data-roles="action" /> Shore power
          </label>
          <label className="row">
            <input type="checkbox" data-roles="action" /> Water
          </label>
          <label className="row">
            <input type="radio" name="side" defaultChecked data-roles="action" /> Port side
          </label>
          <label className="row">
            <input type="radio" name="side" data-roles="action" /> Starboard
          </label>
        </fieldset>
        <label>
          Remarks
          <textarea
            rows={2}
            placeholder="Anything the berth master should know"
            data-roles={FIELD}
          />
        </label>
        <label>
          Agreed rate
          <input disabled defaultValue="Set by the office" data-roles="disabled disabled-text" />
        </label>
        <div className="row between">
          <button
            type="button"
            className="soft"
            disabled={step === 0}
            data-roles={step === 0 ? "disabled disabled-text" : "action-soft action-soft-text"}
            onClick={() => setStep(step - 1)}
          >
            Back
          </button>
          <button
            type="button"
            className="action"
            data-roles="action action-text action-hover action-pressed"
            onClick={() => setStep(Math.min(2, step + 1))}
            {...shownAs(shown)}
          >
            {step === 2 ? "Book the berth" : "Go on"}
          </button>
        </div>
      </form>
    </>
  );
}
