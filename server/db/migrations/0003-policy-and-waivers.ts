/** What the organisation asks of its themes, and findings that people accepted for a time. */
export const up = `
CREATE TABLE policies (
  id integer PRIMARY KEY CHECK (id = 1),
  conformance text NOT NULL CHECK (conformance IN ('AA', 'AAA')),
  shortfall text NOT NULL CHECK (shortfall IN ('warn', 'refuse')),
  waivers boolean NOT NULL,
  changed_by uuid NOT NULL REFERENCES people,
  changed_at timestamptz NOT NULL DEFAULT now()
);

CREATE TABLE waivers (
  id uuid PRIMARY KEY,
  theme_id uuid NOT NULL REFERENCES themes,
  kind text NOT NULL,
  over text NOT NULL,
  ground text NOT NULL,
  scheme text NOT NULL CHECK (scheme IN ('light', 'dark')),
  level text NOT NULL CHECK (level IN ('standard', 'more')),
  reason text NOT NULL CHECK (length(reason) BETWEEN 1 AND 500),
  until date NOT NULL,
  granted_by uuid NOT NULL REFERENCES people,
  granted_at timestamptz NOT NULL DEFAULT now(),
  withdrawn_at timestamptz
);
CREATE INDEX waivers_theme ON waivers (theme_id) WHERE withdrawn_at IS NULL;
`;
