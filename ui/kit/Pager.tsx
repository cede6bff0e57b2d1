import Link from "next/link";

/** The way between pages of a long list; nothing where there is only one. */
export function Pager({
  page,
  pages,
  address,
  earlier,
  later,
}: {
  page: number;
  pages: number;
  address: (page: number) => string;
  earlier: string;
  later: string;
}) {
  if (pages <= 1) return null;
  return (
    <nav aria-label="Pages" className="flex items-center justify-between gap-3">
      {page > 0 ? (
        <Link className="btn" href={address(page - 1)}>
          {earlier}
        </Link>
      ) : (
        <span />
      )}
      <span className="text-soft">
        Page {page + 1} of {pages}
      </span>
      {page < pages - 1 ? (
        <Link className="btn" href={address(page + 1)}>
          {later}
        </Link>
      ) : (
        <span />
      )}
    </nav>
  );
}
