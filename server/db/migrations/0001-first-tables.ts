/** People, themes with drafts and releases, the estate, deliveries with receipts, the audit log. */
export const up = `
CREATE TABLE people (
  id uuid PRIMARY KEY,
  email text NOT NULL UNIQUE CHECK (email = lower(email)),
  name text NOT NULL,
  capability text NOT NULL CHECK (capability IN ('administrator', 'reader')),
  password_hash text NOT NULL,
  created_at timestamptz NOT NULL DEFAULT now()
);

CREATE TABLE sessions (
  token_hash text PRIMARY KEY,
  person_id uuid NOT NULL REFERENCES people ON DELETE CASCADE,
  created_at timestamptz NOT NULL DEFAULT now(),
  expires_at timestamptz NOT NULL
);
CREATE INDEX sessions_person ON sessions (person_id);

CREATE TABLE sign_in_limits (
  key varchar(255) PRIMARY KEY,
  points integer NOT NULL DEFAULT 0,
  expire bigint
);

CREATE TABLE themes (
  id uuid PRIMARY KEY,
  name text NOT NULL CHECK (length(name) BETWEEN 1 AND 80),
  created_by uuid NOT NULL REFERENCES people,
  created_at timestamptz NOT NULL DEFAULT now()
);
CREATE UNIQUE INDEX themes_name ON themes (lower(name));

CREATE TABLE drafts (
  theme_id uuid PRIMARY KEY REFERENCES themes,
  revision integer NOT NULL CHECK (revision > 0),
  document jsonb NOT NULL,
  saved_by uuid NOT NULL REFERENCES people,
  saved_at timestamptz NOT NULL DEFAULT now()
);

CREATE TABLE draft_revisions (
  id uuid PRIMARY KEY,
  theme_id uuid NOT NULL REFERENCES themes,
  based_on integer NOT NULL,
  revision integer,
  document jsonb NOT NULL,
  saved_by uuid NOT NULL REFERENCES people,
  saved_at timestamptz NOT NULL DEFAULT now()
);
COMMENT ON COLUMN draft_revisions.revision IS 'null: refused, since a newer revision was there; kept all the same';
CREATE UNIQUE INDEX draft_revisions_saved ON draft_revisions (theme_id, revision) WHERE revision IS NOT NULL;

CREATE TABLE releases (
  id uuid PRIMARY KEY,
  theme_id uuid NOT NULL REFERENCES themes,
  number integer NOT NULL CHECK (number > 0),
  name text NOT NULL,
  note text NOT NULL,
  document jsonb NOT NULL,
  artefacts jsonb NOT NULL,
  created_by uuid NOT NULL REFERENCES people,
  created_at timestamptz NOT NULL DEFAULT now(),
  UNIQUE (theme_id, number)
);
CREATE UNIQUE INDEX releases_name ON releases (lower(name));

CREATE TABLE connections (
  id uuid PRIMARY KEY,
  platform text NOT NULL,
  address text NOT NULL,
  scope text NOT NULL,
  account text NOT NULL,
  secret text NOT NULL,
  created_at timestamptz NOT NULL DEFAULT now()
);

CREATE TABLE places (
  id uuid PRIMARY KEY,
  parent_id uuid REFERENCES places,
  kind text NOT NULL CHECK (kind IN ('organisation', 'tenant', 'application', 'area')),
  name text NOT NULL,
  platform text,
  connection_id uuid REFERENCES connections,
  external_key text,
  page text,
  created_at timestamptz NOT NULL DEFAULT now(),
  CHECK ((connection_id IS NULL) = (external_key IS NULL))
);
CREATE INDEX places_parent ON places (parent_id);

CREATE TABLE deliveries (
  id uuid PRIMARY KEY,
  place_id uuid NOT NULL REFERENCES places,
  release_id uuid NOT NULL REFERENCES releases,
  state text NOT NULL CHECK (state IN ('queued', 'delivering', 'delivered', 'failed')),
  attempt integer NOT NULL DEFAULT 0,
  failure jsonb,
  retry_at timestamptz,
  requested_by uuid NOT NULL REFERENCES people,
  requested_at timestamptz NOT NULL DEFAULT now(),
  finished_at timestamptz
);
CREATE INDEX deliveries_place ON deliveries (place_id, requested_at DESC);
CREATE UNIQUE INDEX deliveries_one_open_per_place ON deliveries (place_id)
  WHERE state IN ('queued', 'delivering');

CREATE TABLE receipts (
  id uuid PRIMARY KEY,
  delivery_id uuid NOT NULL UNIQUE REFERENCES deliveries,
  place_id uuid NOT NULL REFERENCES places,
  sent jsonb NOT NULL,
  sent_sha256 text NOT NULL,
  found jsonb NOT NULL,
  found_sha256 text NOT NULL,
  read_at timestamptz NOT NULL
);
CREATE INDEX receipts_place ON receipts (place_id, read_at DESC);

CREATE TABLE audit_entries (
  id bigserial PRIMARY KEY,
  at timestamptz NOT NULL DEFAULT now(),
  person_id uuid REFERENCES people,
  action text NOT NULL,
  subject_kind text NOT NULL,
  subject_id uuid,
  detail jsonb NOT NULL
);
CREATE INDEX audit_entries_at ON audit_entries (at DESC, id DESC);

CREATE FUNCTION refuse_change() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  RAISE EXCEPTION '% rows never change', TG_TABLE_NAME USING ERRCODE = 'integrity_constraint_violation';
END $$;
CREATE TRIGGER releases_immutable BEFORE UPDATE OR DELETE ON releases
  FOR EACH ROW EXECUTE FUNCTION refuse_change();
CREATE TRIGGER receipts_immutable BEFORE UPDATE OR DELETE ON receipts
  FOR EACH ROW EXECUTE FUNCTION refuse_change();
CREATE TRIGGER audit_entries_immutable BEFORE UPDATE OR DELETE ON audit_entries
  FOR EACH ROW EXECUTE FUNCTION refuse_change();
`;
