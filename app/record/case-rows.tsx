import { Link } from "react-router";
import type { CasesOfCustomer } from "#server/record/customers";
import { caseStateName } from "#core/words/case-states";
import { channelName } from "#core/words/named";
import { Time } from "../ui/time";
import { t } from "../words/record";

interface Props extends CasesOfCustomer {
  /** Whether whose case it is is told: on pages of many customers. */
  withCustomer: boolean;
  /** Whether the newest are not shown. */
  isLater: boolean;
}

/** Cases as a customer's page has them, the newest first; each leads to its record. */
export function CaseRows({ cases, more, withCustomer, isLater }: Props) {
  if (cases.length === 0 && !isLater) return <p className="py-6 text-soft">{t("noCaseYet")}</p>;
  const last = cases.at(-1);
  return (
    <>
      <table className="w-full text-sm">
        <thead>
          <tr className="text-left text-soft [&>th]:py-1.5 [&>th]:pr-4 [&>th]:font-normal">
            <th scope="col">{t("caseColumn")}</th>
            <th scope="col">{t("aboutColumn")}</th>
            <th scope="col">{t("stateColumn")}</th>
            <th scope="col" className="max-sm:hidden">
              {t("whoseColumn")}
            </th>
            <th scope="col" className="text-right max-sm:hidden">
              {t("messagesColumn")}
            </th>
            <th scope="col">{t("openedColumn")}</th>
          </tr>
        </thead>
        <tbody>
          {cases.map((one) => (
            <tr key={one.number} className="border-t border-line align-baseline [&>td]:py-1.5 [&>td]:pr-4">
              <td className="whitespace-nowrap">
                <Link to={`/cases/${one.number}/record`} className="underline underline-offset-2">
                  {one.label}
                </Link>
              </td>
              <td className="[overflow-wrap:anywhere]">
                <Link to={`/cases/${one.number}/record`} className="font-serif text-base">
                  {one.subject || t("noSubject")}
                </Link>
                <span className="block text-soft">
                  {withCustomer && (
                    <>
                      <Link to={`/customers/${one.customer.id}`} className="underline underline-offset-2">
                        {one.customer.name}
                      </Link>
                      {", "}
                    </>
                  )}
                  {[channelName(one.channel), one.topic].filter((part) => part !== null).join(", ")}
                </span>
              </td>
              <td>{caseStateName(one.status)}</td>
              <td className="max-sm:hidden">
                {one.assignee ?? <span className="text-soft">{t("nobodys")}</span>}
              </td>
              <td className="text-right tabular-nums max-sm:hidden">{one.messages}</td>
              <td className="whitespace-nowrap">
                <Time at={one.openedAt} />
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="mt-4 flex gap-6 text-sm">
        {isLater && (
          <Link to="?" className="quiet-link">
            {t("toTheNewest")}
          </Link>
        )}
        {more && last && (
          <Link to={`?after=${last.number}`} className="quiet-link">
            {t("olderCases")}
          </Link>
        )}
      </p>
    </>
  );
}

/** How many cases there are, and how many of them wait. */
export function casesWords({ total, waiting }: Pick<CasesOfCustomer, "total" | "waiting">): string {
  const words = [t("casesInAll", { count: total })];
  if (waiting > 0) words.push(t("waitingForUs", { count: waiting }));
  return words.join(", ");
}
