import type { ConversationMessage } from "#server/cases/conversation";
import { useAct } from "../../ui/act";
import { useToast } from "../../ui/toast";
import { t } from "../../words/answering";

/** Which rule sent a letter, and what somebody says of that: it is tried whenever the rule is rehearsed. */
export function ByRule({ rule }: { rule: NonNullable<ConversationMessage["byRule"]> }) {
  const act = useAct();
  const toast = useToast();
  const say = async (should: boolean | null) => {
    const kept = await act(`/standing/${rule.id}/mark`, { message: rule.message, should });
    toast(kept.ok ? { words: t("itIsTriedOnThat") } : { words: kept.problem, tone: "stop" });
  };
  return (
    <p className="mb-1.5 flex flex-wrap gap-x-3 border-l-[3px] border-line px-2.5 py-1 text-sm text-soft">
      <span>{t("theRuleSentThis", { name: rule.name })}</span>
      {rule.should === false ? (
        <>
          <span className="text-look">{t("saidItShouldNot")}</span>
          <button type="button" className="underline underline-offset-2" onClick={() => void say(null)}>
            {t("takeThatBack")}
          </button>
        </>
      ) : (
        <button type="button" className="underline underline-offset-2" onClick={() => void say(false)}>
          {t("itShouldNotHave")}
        </button>
      )}
    </p>
  );
}
