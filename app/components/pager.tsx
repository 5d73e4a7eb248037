import { Link, useLocation } from "react-router";

interface PagerProps {
  page: number;
  size: number;
  total: number;
}

/** Leads through the pages of a list; the page stands in the address. Nothing where one page is all. */
export function Pager({ page, size, total }: PagerProps) {
  const { search } = useLocation();
  const last = Math.max(1, Math.ceil(total / size));
  if (last === 1) return null;
  const to = (n: number) => {
    const params = new URLSearchParams(search);
    params.set("page", String(n));
    return `?${params}`;
  };
  return (
    <nav aria-label="Pages" className="mt-4 flex items-center gap-4">
      {page > 1 ? (
        <Link className="go" to={to(page - 1)}>
          Previous
        </Link>
      ) : null}
      <span className="text-faint">
        Page {page} of {last}, {total} in all
      </span>
      {page < last ? (
        <Link className="go" to={to(page + 1)}>
          Next
        </Link>
      ) : null}
    </nav>
  );
}

/** The page that an address asks for, from 1. */
export function pageOf(params: URLSearchParams): number {
  const page = Number(params.get("page"));
  return Number.isInteger(page) && page > 0 && page < 1_000_000 ? page : 1;
}
