import { lazy, Suspense, useState } from "react";
import { durationWords } from "#core/language/duration";
import type { OpenCase } from "#server/answering/open";
import { Hint } from "../../ui/hint";
import { t } from "../../words/answering";

const TimeDialog = lazy(() => import("./time-dialog"));

/** How long it took so far, by whom, and the way to set one's own time right. */
export function TimeLine({ open }: { open: OpenCase }) {
  const [asks, setAsks] = useState(false);
  const { times } = open;
  const seconds = times.reduce((sum, one) => sum + one.seconds, 0);
  return (
    <p className="mt-1 text-sm text-soft">
      {times.length === 0 ? (
        t("noTimeYet")
      ) : (
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
      )}
      <button type="button" className="ml-3 underline underline-offset-2" onClick={() => setAsks(true)}>
        {t("setItRight")}
      </button>
      <Suspense>
        {asks && <TimeDialog number={open.number} times={times} onClose={() => setAsks(false)} />}
      </Suspense>
    </p>
  );
}
