import { useState } from "react";
import { type PreviewProps, shownAs } from "./page.ts";

/** A sign-in page: logo, fields, the message for a wrong password, and the way to a new one. */
export function SignInPreview({ shown }: PreviewProps) {
  const [state, setState] = useState<"asking" | "wrong" | "recovery">("wrong");
  return (
    <div className="narrow">
      <form
        className="panel stack"
        data-roles="panel panel-text line"
        onSubmit={(e) => {
          e.preventDefault();
          setState("wrong");
        }}
      >
        <p className="row">
          <svg
            viewBox="0 0 40 28"
            width="40"
            height="28"
            aria-hidden="true"
            data-roles="action accent"
          >
            <path
              d="M2 24c6-9 12-9 18 0s12 9 18 0"
              fill="none"
              stroke="var(--r-action)"
              strokeWidth="4"
            />
            <path d="M20 2v14" stroke="var(--r-accent)" strokeWidth="4" />
          </svg>
          <span className="name">Crew Portal</span>
        </p>
        <h1>{state === "recovery" ? "New password" : "Sign in"}</h1>
        <label>
          Crew number
          <input defaultValue="40117" data-roles="field field-text field-line" />
        </label>
        {state === "recovery" ? null : (
          <label>
            Password
            <input
              type="password"
              defaultValue="wrong"
              aria-invalid={state === "wrong" ? true : undefined}
              data-roles="field field-text danger-line field-line"
            />
          </label>
        )}
        {state === "wrong" ? (
          <p className="note danger" data-roles="danger-soft-text danger-soft danger-line">
            The password is not right. You have four more tries.
          </p>
        ) : null}
        {state === "recovery" ? (
          <p className="note info" data-roles="info-soft-text info-soft info-line">
            We send a link to the address that your office has.
          </p>
        ) : null}
        <div className="row between">
          <button
            className="action"
            type="submit"
            data-roles="action action-text action-hover action-pressed"
            {...shownAs(shown)}
          >
            {state === "recovery" ? "Send the link" : "Sign in"}
          </button>
          <button
            className="soft"
            type="button"
            data-roles="action-soft action-soft-text action-soft-hover"
            onClick={() => setState(state === "recovery" ? "asking" : "recovery")}
            {...shownAs(shown)}
          >
            {state === "recovery" ? "Back" : "Forgotten?"}
          </button>
        </div>
        <p className="muted small" data-roles="panel-text-muted panel">
          Shore staff sign in with their usual account.
        </p>
      </form>
    </div>
  );
}
