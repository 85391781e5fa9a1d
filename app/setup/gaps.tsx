import { Link } from "react-router";
import { gapsInData, STOPPED_DAYS, type Gap } from "#server/fields/gaps";
import { loaderResult } from "#server/web/results";
import { signedIn } from "#server/web/context";
import type { Route } from "./+types/gaps";
import { t } from "../words/setup";

export async function loader(args: Route.LoaderArgs) {
  const { viewer, em, now } = await signedIn(args);
  return loaderResult(async () => ({ gaps: await gapsInData(em, viewer, now), days: STOPPED_DAYS }));
}

const PAGES: Record<Gap["of"], string> = {
  customer: "/customers",
  organisation: "/organisations",
  agent: "/setup/people",
};

/** Who lacks a value that a reply in use needs, and how many letters that stopped. */
export default function Gaps({ loaderData }: Route.ComponentProps) {
  const { gaps, days } = loaderData;
  return (
    <>
      <title>{t("gapsInTheDataPlainShelf")}</title>
      <h1 className="text-xl font-bold">{t("gapsInTheData")}</h1>
      <p className="mt-1 max-w-2xl text-soft">{t("whatRepliesNeedAndSomeLack", { days })}</p>
      {gaps.length === 0 && <p className="mt-6 font-serif text-lg text-soft">{t("nothingLacks")}</p>}
      {gaps.map((gap) => (
        <section key={gap.name} aria-label={gap.label} className="mt-5 max-w-4xl border-t border-line pt-3">
          <h2 className="flex flex-wrap items-baseline gap-x-3">
            <span className="font-bold first-letter:uppercase">{gap.label}</span>
            <span className="text-sm text-soft">
              {gap.of === "customer"
                ? t("customersLackIt", { count: gap.lacking })
                : gap.of === "organisation"
                  ? t("organisationsLackIt", { count: gap.lacking })
                  : t("colleaguesLackIt", { count: gap.lacking })}
            </span>
            <span className={`text-sm ${gap.stopped > 0 ? "font-semibold text-look" : "text-soft"}`}>
              {t("itStoppedLetters", { count: gap.stopped })}
            </span>
          </h2>
          <p className="mt-1 text-sm text-soft">
            {t("neededBy")}{" "}
            {gap.replies.map(({ key, title }, index) => (
              <span key={key}>
                {index > 0 && ", "}
                <Link to={`/replies/${encodeURIComponent(key)}`} className="underline underline-offset-2">
                  {title}
                </Link>
              </span>
            ))}
          </p>
          <ul className="mt-1 flex flex-wrap gap-x-5 gap-y-1 text-sm">
            {gap.some.map(({ id, name }) => (
              <li key={id} className="[overflow-wrap:anywhere]">
                <Link to={`${PAGES[gap.of]}/${id}`} className="underline underline-offset-2">
                  {name}
                </Link>
              </li>
            ))}
            {gap.lacking > gap.some.length && (
              <li className="text-soft">{t("andCountMore", { count: gap.lacking - gap.some.length })}</li>
            )}
          </ul>
        </section>
      ))}
    </>
  );
}
