import { listed } from "#core/text/counted";
import type { NoticeChange } from "#core/notices/notice";
import type { OpenCase } from "#server/answering/open";
import type { NoticeWaiting } from "#server/notices/of-case";
import type { StripReply } from "#server/strip/strip";
import { useAct } from "../ui/act";
import { Time } from "../ui/time";
import { useToast } from "../ui/toast";
import { inLanguage } from "./letter/around";
import { t } from "../words/answering";

const changed: Record<NoticeChange, () => string> = {
  state: () => t("itsStateChanged"),
  topic: () => t("itsTopicChanged"),
  owner: () => t("itIsSomebodyElses"),
  promise: () => t("somethingWasPromised"),
};

/** What a notice, or an answer that a rule prepared, is for; why a person sees to it first, where something says so. */
function changedIn({ on, rule, title, why }: NoticeWaiting): string {
  if (rule === null && on !== "arrival" && on !== "silence") return changed[on]();
  const name = rule ?? title;
  return why === null ? t("ruleIsForIt", { name }) : t("ruleIsForItBut", { name, why });
}

/** What the customer may be told of since the case changed: to take, to leave, or to call back. */
export function NoticesLine({
  open,
  onTake,
}: {
  open: OpenCase;
  onTake: (reply: StripReply, add: boolean) => void;
}) {
  const act = useAct();
  const toast = useToast();
  const go = async (address: string) => {
    const done = await act(address, {});
    if (!done.ok) toast({ words: done.problem, tone: "stop" });
  };
  if (open.notices.length === 0) return null;
  return (
    <ul aria-label={t("noticesOfThisCase")} className="border-b border-line py-2 text-sm">
      {open.notices.map((notice) => {
        const reply = replyOf(open, notice);
        return (
          <li key={notice.id} className="mt-1 border-l-[3px] border-look pl-2.5 first:mt-0">
            <span className="mr-3">
              {notice.state === "queued" && notice.dueAt !== null ? (
                <>
                  {listed([changedIn(notice), t("titleGoesByItself", { title: notice.title })])}{" "}
                  <Time at={notice.dueAt} />
                </>
              ) : notice.state === "held" ? (
                t("titleDidNotGo", { title: notice.title, why: notice.why ?? "" })
              ) : (
                t("tellThemByTitle", { changed: changedIn(notice), title: notice.title })
              )}
            </span>
            <span className="whitespace-nowrap">
              {notice.state === "queued" ? (
                <button
                  type="button"
                  className="quiet-link"
                  onClick={() => void go(`/messages/${notice.message}/call-back`)}
                >
                  {t("callItBack")}
                </button>
              ) : (
                <>
                  {reply && (
                    <button type="button" className="quiet-link mr-3" onClick={() => onTake(reply, false)}>
                      {t("takeIt")}
                    </button>
                  )}
                  <button
                    type="button"
                    className="text-soft underline underline-offset-2"
                    onClick={() => void go(`/notices/${notice.id}/decline`)}
                  >
                    {t("leaveIt")}
                  </button>
                </>
              )}
            </span>
          </li>
        );
      })}
    </ul>
  );
}

/** The reply of a notice in the letter's language, else as it is written; null where who looks may not use it. */
function replyOf({ noticeReplies, language }: OpenCase, { reply: key }: NoticeWaiting): StripReply | null {
  const written = noticeReplies.filter((one) => one.key === key);
  return inLanguage(written, language) ?? written[0] ?? null;
}
