/** Names of places are sorted as people count: "Deck 9" before "Deck 10". */
export const up = `
CREATE COLLATION natural_names (provider = icu, locale = 'en-u-kn-true');
ALTER TABLE places ALTER COLUMN name TYPE text COLLATE natural_names;
`;
