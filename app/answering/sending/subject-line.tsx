import { useMemo, useState } from "react";
import { compose, type SubjectChoice } from "#core/compose/compose";
import { answerSubject } from "#core/mail/subject";
import type { OpenCase } from "#server/answering/open";
import type { StripReply } from "#server/strip/strip";
import type { AnswerHandle } from "../use-answer";
import { answerAttrs } from "../editor/answer-attrs";
import { setSubject } from "../editor/fill";
import { Hint } from "../../ui/hint";
import { useFieldKeys } from "../../ui/use-field-keys";
import { t } from "../../words/answering";

/** The subject: the thread's, unless the agent takes the reply's or writes another. */
export function SubjectLine({
  open,
  answer,
  looked,
}: {
  open: OpenCase;
  answer: AnswerHandle;
  looked: StripReply | null;
}) {
  const { letter, editor } = answer;
  const subject = letter ? answerAttrs(letter.doc).subject : (open.draft?.subject ?? { from: "thread" });
  const choose = (next: SubjectChoice, goesOn = false) => editor && setSubject(editor.view, next, goesOn);
  const [editing, setEditing] = useState(false);
  const field = useFieldKeys({ keep: () => setEditing(false) });
  const offered = useMemo(() => {
    const slip = letter?.slips.find((one) => one.subject !== null && one.subject !== "");
    if (!slip || !letter || looked) return null;
    const { inputs, slips } = letter;
    return compose({ ...inputs, subject: { from: "reply" }, attachments: [], slips }).subject;
  }, [letter, looked]);
  const shown = letter?.letter.subject ?? answerSubject(open.subject, open.label);
  return (
    <>
      <dt className="text-sm text-soft">{t("subject")}</dt>
      <dd className="flex flex-wrap items-baseline gap-x-3">
        {editing ? (
          <input
            ref={field}
            aria-label={t("subject")}
            data-fills-letter
            autoFocus
            className="lined-field grow font-serif text-letter"
            value={subject.from === "own" ? subject.text : shown}
            maxLength={500}
            onChange={(event) => choose({ from: "own", text: event.target.value }, subject.from === "own")}
            onBlur={() => setEditing(false)}
          />
        ) : (
          <span className="font-serif text-letter [overflow-wrap:anywhere]">{shown}</span>
        )}
        {!editing && subject.from !== "own" && (
          <button
            type="button"
            className="text-sm text-soft underline underline-offset-2"
            onClick={() => setEditing(true)}
          >
            {t("change")}
          </button>
        )}
        {!editing && offered !== null && subject.from === "thread" && offered !== shown && (
          <Hint words={offered}>
            <button type="button" className="quiet-link text-sm" onClick={() => choose({ from: "reply" })}>
              {t("useTheReplys")}
            </button>
          </Hint>
        )}
        {!editing && subject.from !== "thread" && (
          <button type="button" className="quiet-link text-sm" onClick={() => choose({ from: "thread" })}>
            {t("keepTheThreads")}
          </button>
        )}
      </dd>
    </>
  );
}
