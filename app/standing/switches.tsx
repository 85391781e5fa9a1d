import { useState } from "react";
import type { StandingRow } from "#server/standing/rules";
import { useAsk } from "../ui/ask";
import { Button } from "../ui/button";
import { FormProblem } from "../ui/form";
import { Time, useClock } from "../ui/time";
import { useSave } from "../ui/use-save";
import { UntilChoice, untilOf, type Until } from "./until";
import { t } from "../words/standing";

/** Switches a rule on and off. What it would have done is said once more before it sends by itself. */
export function Switches({ rule, isDirty }: { rule: StandingRow; isDirty: boolean }) {
  const { send, problem } = useSave("/standing");
  const ask = useAsk();
  const [isBusy, setBusy] = useState(false);
  const { timeZone } = useClock();
  const [until, setUntil] = useState<Until>(() =>
    rule.until === null ? { kind: "ever" } : { kind: "instant", at: rule.until },
  );
  const to = async (mode: "off" | "prepare" | "send") => {
    setBusy(true);
    const asked = { to: mode, until: mode === "off" ? null : untilOf(until, { now: Date.now(), timeZone }) };
    await send(`${rule.id}/switch`, asked, t(mode === "off" ? "ruleIsOff" : "ruleIsOn"));
    setBusy(false);
  };
  const letSend = async () => {
    const { rehearsed } = rule;
    if (!rehearsed) return;
    const { messages, agreed, otherwise, unanswered, missed } = rehearsed;
    const isMeant = await ask({
      title: t("letItSendTitle", { name: rule.name }),
      words: t("itWouldHaveAnswered", {
        ...{ messages, otherwise, missed },
        answered: agreed + otherwise + unanswered,
      }),
      yes: t("itSends"),
    });
    if (isMeant) await to("send");
  };
  const takeOut = async () => {
    const isMeant = await ask({
      title: t("takeOutTitle", { name: rule.name }),
      words: t("takeOutWords"),
      yes: t("takeItOut"),
    });
    if (isMeant) await send(`${rule.id}/remove`, {}, t("ruleIsOut"));
  };
  // Until a day that is not chosen yet, nothing is switched on.
  const isBarred = isBusy || (until.kind === "then" && untilOf(until, { now: 0, timeZone }) === null);
  const isOn = rule.switchedOnAt !== null;
  const isReady = !isDirty && rule.rehearsed?.isOfThis === true;
  return (
    <div className="mt-5 flex flex-wrap items-center gap-x-5 gap-y-2 border-t border-line pt-4">
      {isOn ? (
        <>
          <Button disabled={isBusy} onClick={() => void to("off")}>
            {t("switchItOff")}
          </Button>
          {rule.mode === "send" ? (
            <Button look="quiet" disabled={isBusy} onClick={() => void to("prepare")}>
              {t("onlyPrepare")}
            </Button>
          ) : (
            <Button look="quiet" disabled={isBusy} onClick={() => void letSend()}>
              {t("letItSend")}
            </Button>
          )}
          {rule.switchedOnBy !== null && (
            <span className="text-sm text-soft">
              {t("onSince", { who: rule.switchedOnBy })}
              {rule.until !== null && (
                <>
                  , {t("until")} <Time at={rule.until} />
                </>
              )}
            </span>
          )}
        </>
      ) : isReady ? (
        <>
          <Button disabled={isBarred} onClick={() => void to("prepare")}>
            {t("switchOnPrepare")}
          </Button>
          <Button look="quiet" disabled={isBarred} onClick={() => void letSend()}>
            {t("letItSend")}
          </Button>
          <UntilChoice until={until} onChange={setUntil} />
        </>
      ) : (
        <span className="text-soft">{t(isDirty ? "saveItFirst" : "rehearseItFirst")}</span>
      )}
      <button
        type="button"
        className="ml-auto text-sm text-soft underline underline-offset-2"
        onClick={() => void takeOut()}
      >
        {t("takeItOut")}
      </button>
      <FormProblem words={problem ?? undefined} />
    </div>
  );
}
