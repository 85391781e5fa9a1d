import { useState } from "react";
import { useNavigate } from "react-router";
import * as z from "zod/mini";
import type { Comparison } from "#server/replies/history";
import { Button } from "../../ui/button";
import { useAct } from "../../ui/act";
import { useToast } from "../../ui/toast";
import { t } from "../../words/writing";

const done = z.object({ number: z.optional(z.number()) });

/** What can be done with the newer version: publish or send back a proposal, restore an old one, go on with one's own. */
export function Decide({ compared, published }: { compared: Comparison; published: number | null }) {
  const { reply, after, before, versions } = compared;
  const [words, setWords] = useState("");
  const [problem, setProblem] = useState<string | null>(null);
  const [replace, setReplace] = useState(false);
  const navigate = useNavigate();
  const toast = useToast();
  const act = useAct();
  const { state, mine, id } = after.row;
  const working = versions.find((row) => row.state === "draft" && row.mine);
  const overCurrent = (before?.row.id ?? null) === published;

  const send = async (what: string, body: object, said: string, to: string | null) => {
    const result = await act(`/replies/${reply.key}/${what}`, body, done);
    if (!result.ok) {
      setProblem(result.problem);
      // The one conflict of it: a working copy would be replaced.
      if (result.status === 409 && what.endsWith("/work-from")) setReplace(true);
      return;
    }
    setProblem(null);
    toast({ words: said });
    if (to !== null) await navigate(to);
  };
  const workFrom = () =>
    void send(`versions/${id}/work-from`, { replace }, t("itIsInYourWorkingCopy"), `/replies/${reply.key}`);

  return (
    <div className="mt-3 flex flex-col gap-2">
      {state === "proposed" && reply.mayPublish && (
        <div className="flex flex-wrap items-center gap-x-5 gap-y-2 border-l-[3px] border-ink py-1 pl-4">
          <input
            aria-label={t("remarkToItsAuthor")}
            placeholder={t("aRemarkToItsAuthor")}
            className="lined-field grow"
            value={words}
            maxLength={2000}
            onChange={(event) => setWords(event.target.value)}
          />
          {overCurrent ? (
            <Button
              onClick={() =>
                void send(
                  `versions/${id}/publish`,
                  { over: published, decision: words || null },
                  t("itIsOnTheShelf"),
                  "/shelves/proposals",
                )
              }
            >
              {t("publish2")}
            </Button>
          ) : (
            <span className="text-sm text-soft">{t("compareItWithThePublishedVersion")}</span>
          )}
          <button
            type="button"
            className="quiet-link"
            onClick={() =>
              void send(`versions/${id}/send-back`, { decision: words }, t("sentBack"), "/shelves/proposals")
            }
          >
            {t("sendBack")}
          </button>
          <button type="button" className="quiet-link" onClick={workFrom}>
            {replace ? t("replaceMyWorkingCopyWithIt") : t("workOnIt")}
          </button>
        </div>
      )}
      {(state === "superseded" || state === "sent back") && (
        <p>
          <button type="button" className="quiet-link" onClick={workFrom}>
            {replace
              ? t("replaceMyWorkingCopyWithIt")
              : state === "superseded"
                ? t("restoreItAsMyWorkingCopy")
                : t("takeItUpAgain")}
          </button>
        </p>
      )}
      {state === "draft" && mine && published !== null && working && before?.row.id === published && (
        <p className="flex flex-wrap items-baseline gap-x-5">
          <span className="text-sm text-soft">{t("onTheLeftHandSideOf")}</span>
          <button
            type="button"
            className="quiet-link"
            onClick={() =>
              void send(
                `versions/${published}/merge`,
                {},
                t("yourWorkingCopyRestsOnIt"),
                `/replies/${reply.key}`,
              )
            }
          >
            {t("iHaveTakenItIntoAccount")}
          </button>
        </p>
      )}
      {problem && (
        <p role="alert" className="text-stop">
          {problem}
        </p>
      )}
    </div>
  );
}
