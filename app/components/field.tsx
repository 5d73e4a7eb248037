import type { InputHTMLAttributes } from "react";

interface FieldProps extends InputHTMLAttributes<HTMLInputElement> {
  id: string;
  label: string;
  hint?: string | undefined;
  errors?: string[] | undefined;
}

/** A labelled text field with its hint and what is wrong with it. */
export function Field({ id, label, hint, errors, className = "", ...input }: FieldProps) {
  const wrong = errors !== undefined && errors.length > 0;
  const described = [hint && `${id}-hint`, wrong && `${id}-error`].filter(Boolean).join(" ");
  return (
    <div className={className}>
      <label htmlFor={id} className="block font-medium">
        {label}
      </label>
      <input
        id={id}
        name={id}
        className="entry mt-1"
        aria-invalid={wrong || undefined}
        aria-describedby={described || undefined}
        {...input}
      />
      {hint ? (
        <p id={`${id}-hint`} className="mt-1 text-sm text-faint">
          {hint}
        </p>
      ) : null}
      {wrong ? <Problem id={`${id}-error`}>{errors.join(" ")}</Problem> : null}
    </div>
  );
}

/** What is wrong and what to do, marked by shape and weight rather than by colour. */
export function Problem({ id, children }: { id?: string; children: React.ReactNode }) {
  return (
    <p id={id} role="alert" className="mt-1 flex gap-1.5 font-medium">
      <span aria-hidden="true">▲</span>
      <span>{children}</span>
    </p>
  );
}
