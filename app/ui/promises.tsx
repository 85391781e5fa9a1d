import { Link } from "react-router";
import type { PromiseMade } from "#server/promises/of-case";
import { t } from "../words/ui";
import { useAct } from "./act";
import { dayText } from "./day";
import { sayDay } from "./say-day";
import { useClock } from "./time";
import { useToast } from "./toast";

interface Props {
  promises: PromiseMade[];
  /** Whether the case is told that each was made on: on pages of many cases. */
  withCase?: boolean;
  /** Whether the customer is told too: on pages of many customers. */
  withCustomer?: boolean;
}

/** What was promised to customers, by when, and what came of it. What is open can be said to be kept or taken back. */
export function Promises({ promises, withCase = false, withCustomer = false }: Props) {
  const act = useAct();
  const toast = useToast();
  const { now } = useClock();
  const today = dayText(new Date(now));
  const settle = async (id: number, outcome: "kept" | "withdrawn") => {
    const done = await act(`/promises/${id}/settle`, { outcome });
    if (!done.ok) toast({ words: done.problem, tone: "stop" });
  };
  if (promises.length === 0) return null;
  return (
    <section aria-label={t("promised")} className="mt-3 text-sm">
      <h2 className="font-bold">{t("promised")}</h2>
      <ul>
        {promises.map(({ id, words, by, who, outcome, case: number, label, customer }) => (
          <li key={id} className="mt-1 flex flex-wrap items-baseline gap-x-3 [overflow-wrap:anywhere]">
            <span className={outcome === null ? "font-serif text-base" : "font-serif text-base text-soft"}>
              {words}
            </span>
            <span className={outcome === null && by < today ? "font-semibold text-stop" : "text-soft"}>
              {outcome === null
                ? by < today
                  ? t("wasPromisedUntil", { day: sayDay(by) })
                  : t("promisedUntil", { day: sayDay(by) })
                : t(outcome === "kept" ? "promiseKept" : "promiseWithdrawn")}
              {`, ${who}`}
              {withCustomer && `, ${customer}`}
            </span>
            {withCase && (
              <Link to={`/cases/${number}/record`} className="underline underline-offset-2">
                {label}
              </Link>
            )}
            {outcome === null && (
              <>
                <button type="button" className="quiet-link" onClick={() => void settle(id, "kept")}>
                  {t("itIsKept")}
                </button>
                <button
                  type="button"
                  className="text-soft underline underline-offset-2"
                  onClick={() => void settle(id, "withdrawn")}
                >
                  {t("takeItBack")}
                </button>
              </>
            )}
          </li>
        ))}
      </ul>
    </section>
  );
}
