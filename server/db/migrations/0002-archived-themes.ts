/** A theme can be put away and taken out again; it is never lost. */
export const up = `
ALTER TABLE themes ADD COLUMN archived_at timestamptz;
`;
