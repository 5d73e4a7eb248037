/** What the tree needs of a place to order and find it. */
interface Node {
  id: string;
  parent: string | null;
  name: string;
  standing: string;
  platform: string | null;
}

export interface Filter {
  search: string;
  standing: string;
  platform: string;
}

export interface Visible<Row extends Node> {
  row: Row;
  /** From 1 at the top. */
  level: number;
  hasBelow: boolean;
  isOpen: boolean;
}

/**
 * The rows to show, in the order of the tree: everything below what is open, or, while something
 * is looked for, every place that is found together with the places above it.
 */
export function visibleRows<Row extends Node>(
  rows: readonly Row[],
  closed: ReadonlySet<string>,
  { search, standing, platform }: Filter,
): Visible<Row>[] {
  const below = new Map<string | null, Row[]>();
  const ids = new Set(rows.map((row) => row.id));
  for (const row of rows) {
    const parent = row.parent !== null && ids.has(row.parent) ? row.parent : null;
    below.set(parent, [...(below.get(parent) ?? []), row]);
  }
  const wanted = search.trim().toLowerCase();
  const filtering = wanted !== "" || standing !== "" || platform !== "";
  const matches = (row: Row) =>
    row.name.toLowerCase().includes(wanted) &&
    (standing === "" || row.standing === standing) &&
    (platform === "" || row.platform === platform);
  const keep = new Set<string>();
  const look = (row: Row): boolean => {
    const found = (below.get(row.id) ?? []).map(look).some(Boolean);
    const kept = found || matches(row);
    if (kept) keep.add(row.id);
    return kept;
  };
  if (filtering) for (const root of below.get(null) ?? []) look(root);
  const out: Visible<Row>[] = [];
  const walk = (parent: string | null, level: number) => {
    for (const row of below.get(parent) ?? []) {
      if (filtering && !keep.has(row.id)) continue;
      const hasBelow = (below.get(row.id)?.length ?? 0) > 0;
      const isOpen = hasBelow && (filtering || !closed.has(row.id));
      out.push({ row, level, hasBelow, isOpen });
      if (isOpen) walk(row.id, level + 1);
    }
  };
  walk(null, 1);
  return out;
}
