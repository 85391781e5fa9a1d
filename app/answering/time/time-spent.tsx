import { durationWords } from "#core/language/duration";
import type { TimeOf } from "#server/cases/time-spent";
import { Hint } from "../../ui/hint";
import { t } from "../../words/answering";

/** How long a case took so far; by whom, on pointing. Nothing where nobody was at it yet. */
export function TimeSpent({ times }: { times: TimeOf[] }) {
  const seconds = times.reduce((sum, one) => sum + one.seconds, 0);
  if (times.length === 0) return null;
  return (
    <>
      {", "}
      <Hint
        words={times.map((one) => (
          <span key={one.person} className="block">
            {t(one.corrected ? "nameAtItSetRight" : "nameAtIt", {
              name: one.name,
              time: durationWords(one.seconds, "en"),
              open: durationWords(one.open, "en"),
            })}
          </span>
        ))}
      >
        <span>{t("timeAtIt", { time: durationWords(seconds, "en") })}</span>
      </Hint>
    </>
  );
}
