/** Assignments, locks and seasons; rollouts in waves; what is live at a place, and its drift. */
export const up = `
CREATE EXTENSION IF NOT EXISTS btree_gist;

ALTER TABLE places
  ADD COLUMN slug text,
  ADD COLUMN theme_id uuid REFERENCES themes,
  ADD COLUMN locked boolean NOT NULL DEFAULT false,
  ADD COLUMN is_test boolean NOT NULL DEFAULT false,
  ADD COLUMN retired_at timestamptz,
  ADD COLUMN hosted_release_id uuid REFERENCES releases,
  ADD COLUMN live_release_id uuid REFERENCES releases,
  ADD COLUMN live_receipt_id uuid REFERENCES receipts,
  ADD COLUMN checked_at timestamptz,
  ADD COLUMN drift jsonb,
  ADD CONSTRAINT places_lock_needs_theme CHECK (NOT locked OR theme_id IS NOT NULL);
UPDATE places SET slug = id::text;
ALTER TABLE places ALTER COLUMN slug SET NOT NULL;
ALTER TABLE places ADD CONSTRAINT places_slug UNIQUE (slug);
COMMENT ON COLUMN places.hosted_release_id IS 'what the hosted stylesheet of the place shows';
COMMENT ON COLUMN places.live_receipt_id IS 'the newest true receipt; null where nothing is delivered';
COMMENT ON COLUMN places.drift IS 'slots in which the platform no longer holds what the receipt says; null: none';
UPDATE places SET live_release_id = l.release_id, live_receipt_id = l.id
FROM (
  SELECT DISTINCT ON (r.place_id) r.place_id, r.id, d.release_id, r.sent_sha256 = r.found_sha256 AS equal
  FROM receipts r JOIN deliveries d ON d.id = r.delivery_id
  ORDER BY r.place_id, r.read_at DESC
) l
WHERE l.place_id = places.id AND l.equal;

CREATE TABLE seasons (
  id uuid PRIMARY KEY,
  place_id uuid NOT NULL REFERENCES places,
  theme_id uuid NOT NULL REFERENCES themes,
  from_day date NOT NULL,
  until_day date NOT NULL CHECK (until_day >= from_day),
  delivers boolean NOT NULL DEFAULT true,
  begun_at timestamptz,
  ended_at timestamptz,
  created_by uuid NOT NULL REFERENCES people,
  created_at timestamptz NOT NULL DEFAULT now(),
  CONSTRAINT seasons_do_not_overlap
    EXCLUDE USING gist (place_id WITH =, daterange(from_day, until_day, '[]') WITH &&)
);

CREATE TABLE slot_maps (
  platform text PRIMARY KEY,
  slots jsonb NOT NULL,
  changed_by uuid NOT NULL REFERENCES people,
  changed_at timestamptz NOT NULL DEFAULT now()
);

ALTER TABLE connections
  ADD COLUMN name text NOT NULL DEFAULT '',
  ADD COLUMN refused_at timestamptz;
COMMENT ON COLUMN connections.refused_at IS 'the platform refused the credential then; it is not used again until it is changed or tested';

CREATE TABLE stylesheets (
  release_id uuid PRIMARY KEY REFERENCES releases,
  sha256 text NOT NULL,
  body bytea NOT NULL,
  gzip bytea NOT NULL,
  brotli bytea NOT NULL
);
CREATE INDEX stylesheets_sha256 ON stylesheets (sha256);
CREATE TRIGGER stylesheets_immutable BEFORE UPDATE OR DELETE ON stylesheets
  FOR EACH ROW EXECUTE FUNCTION refuse_change();

CREATE TABLE rollouts (
  id uuid PRIMARY KEY,
  name text NOT NULL,
  state text NOT NULL CHECK (state IN ('scheduled', 'running', 'waiting', 'paused', 'stopped', 'done')),
  gate text NOT NULL CHECK (gate IN ('person', 'clean')),
  wave integer NOT NULL DEFAULT 0,
  waves integer NOT NULL,
  starts_at timestamptz,
  requested_by uuid NOT NULL REFERENCES people,
  requested_at timestamptz NOT NULL DEFAULT now(),
  finished_at timestamptz
);
CREATE INDEX rollouts_requested ON rollouts (requested_at DESC);

ALTER TABLE deliveries
  ADD COLUMN rollout_id uuid REFERENCES rollouts,
  ADD COLUMN wave integer NOT NULL DEFAULT 0,
  ADD COLUMN failures integer NOT NULL DEFAULT 0,
  ADD COLUMN previous_release_id uuid REFERENCES releases,
  ALTER COLUMN release_id DROP NOT NULL,
  DROP CONSTRAINT deliveries_state_check,
  ADD CONSTRAINT deliveries_state_check
    CHECK (state IN ('planned', 'queued', 'delivering', 'delivered', 'failed', 'stopped'));
COMMENT ON COLUMN deliveries.release_id IS 'null: back to the look that the platform has by itself';
COMMENT ON COLUMN deliveries.previous_release_id IS 'what was live when this one was planned; null: nothing';
DROP INDEX deliveries_one_open_per_place;
CREATE UNIQUE INDEX deliveries_one_open_per_place ON deliveries (place_id)
  WHERE state IN ('planned', 'queued', 'delivering');
CREATE INDEX deliveries_rollout ON deliveries (rollout_id, wave, state);
`;
