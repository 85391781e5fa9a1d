import { Link } from "react-router";
import { withParams } from "./params";
import { t } from "../words/shelves";

/** Where in a long list one is, and the way to its neighbours. */
export function Pages({
  total,
  page,
  size,
  params,
}: {
  total: number;
  page: number;
  size: number;
  params: URLSearchParams;
}) {
  const last = Math.max(1, Math.ceil(total / size));
  if (last === 1) return null;
  const to = (number: number) => withParams(params, { page: number === 1 ? null : String(number) });
  return (
    <nav aria-label={t("pages")} className="flex items-baseline gap-4 border-t border-line px-6 py-2 text-sm">
      {page > 1 ? (
        <Link to={to(page - 1)} rel="prev" className="quiet-link">
          {t("before")}
        </Link>
      ) : (
        <span className="text-soft">{t("before")}</span>
      )}
      <span className="tabular-nums">
        {t("pageToTotalOfTotal2", {
          page: (page - 1) * size + 1,
          total: Math.min(total, page * size),
          total2: total.toLocaleString("en-GB"),
        })}
      </span>
      {page < last ? (
        <Link to={to(page + 1)} rel="next" className="quiet-link">
          {t("after")}
        </Link>
      ) : (
        <span className="text-soft">{t("after")}</span>
      )}
    </nav>
  );
}
