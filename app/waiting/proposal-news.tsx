import { Link } from "react-router";
import type { ProposalNews as News } from "#server/replies/history";
import { t } from "../words/waiting";

/** How proposals stand: what came back to their author, with what was said; to curators, how many wait. */
export function ProposalNews({ news }: { news: News }) {
  const { toCheck, waiting, back, published } = news;
  const own = [
    waiting > 0 && t("countProposalsOfYoursWaitTo", { count: waiting }),
    published.length > 0 &&
      t("publishedPublished", { published: published.map(({ title }) => `“${title}”`).join(", ") }),
  ].filter((words) => words !== false);
  if (toCheck === 0 && own.length === 0 && back.length === 0) return null;
  return (
    <section aria-label={t("proposals")} className="border-t border-line px-6 py-2 text-sm">
      {back.map(({ key, title, decision, decidedBy }) => (
        <p key={`${key} ${decision ?? ""}`} className="border-l-[3px] border-look pl-2.5">
          {t("sentBack")}{" "}
          <Link to={`/replies/${key}`} className="quiet-link">
            {title}
          </Link>
          . {decidedBy}: <span className="font-serif">“{decision}”</span>
        </p>
      ))}
      {own.length > 0 && (
        <p>
          <Link to="/shelves/proposals" className="quiet-link">
            {own.join("; ")}
          </Link>
        </p>
      )}
      {toCheck > 0 && (
        <p>
          <Link to="/shelves/proposals" className="quiet-link">
            {t("countProposalsWaitToBeChecked", { count: toCheck })}
          </Link>
        </p>
      )}
    </section>
  );
}
