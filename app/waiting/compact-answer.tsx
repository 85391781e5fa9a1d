import { reasonOf } from "#core/text/reason";
import { useEffect, useMemo, useRef, useState } from "react";
import { Link, useNavigate, useRevalidator } from "react-router";
import { factsRead } from "#core/checks/facts-read";
import { stopsSending } from "#core/checks/second-look";
import { lacking } from "#core/checks/surroundings";
import type { OpenCase } from "#server/answering/open";
import type { WaitingRow } from "#server/cases/waiting";
import type { BestReply } from "#server/ranking/kept";
import { keptSlip } from "../answering/editor/slips";
import { postDraft, savedDraft } from "../answering/draft/draft-saver";
import { useOffers } from "../answering/strip/offers";
import { aroundOffers, withAround } from "../answering/letter/around";
import { previewOf } from "../answering/letter/preview";
import { firstSlips } from "../answering/letter/take";
import { requestSending, tellSent } from "../answering/sending/request";
import { Signature } from "../answering/letter/signature";
import { useLanguageGuess } from "../answering/letter/use-language-guess";
import { usePatterns } from "../answering/letter/use-patterns";
import { Button } from "../ui/button";
import { Checkbox } from "../ui/checkbox";
import { readFrom } from "../ui/read";
import { Kbd } from "../ui/kbd";
import { LetterBlocks } from "../ui/letter-blocks";
import { useAct } from "../ui/act";
import { useToast } from "../ui/toast";
import { useShortcut } from "../ui/use-shortcut";
import { listed } from "#core/text/counted";
import { t } from "../words/waiting";
import { Sentence } from "../words/sentence";

interface Props {
  row: WaitingRow;
  reply: BestReply;
  /** @param sent whether the case was answered */
  onClose: (sent: boolean) => void;
}

/** An easy case's answer, to read and send without opening the case. */
export default function CompactAnswer(props: Props) {
  const { row } = props;
  const [open, setOpen] = useState<OpenCase | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  useEffect(() => {
    const abort = new AbortController();
    readFrom(`/cases/${row.number}/opened`, abort.signal)
      .then((answer) => setOpen(answer as OpenCase))
      .catch((error: unknown) => {
        if (!abort.signal.aborted) setProblem(reasonOf(error));
      });
    return () => abort.abort();
  }, [row.number]);
  return (
    <section
      aria-label={t("answerToCustomer", { customer: row.customer })}
      className="sticky top-0 flex max-h-screen flex-col px-6 py-5"
    >
      <p className="text-sm text-soft">{[row.label, row.channel, row.topic].filter(Boolean).join(", ")}</p>
      <h2 className="mt-2 text-lg leading-tight font-bold [overflow-wrap:anywhere]">{row.customer}</h2>
      <p className="letter mt-2 line-clamp-6 border-b border-line pb-3">{row.words}</p>
      {problem !== null && (
        <p role="alert" className="py-4 text-stop">
          <Sentence
            of={t}
            name="theCaseCouldNotBeRead"
            values={{ problem }}
            parts={[<Link key="0" to={`/cases/${row.number}`} className="quiet-link" />]}
          />
        </p>
      )}
      {open ? (
        <Letter {...props} open={open} />
      ) : (
        problem === null && <p className="py-4 text-soft">{t("composing")}</p>
      )}
    </section>
  );
}

function Letter({ open, row, reply, onClose }: Props & { open: OpenCase }) {
  const patterns = usePatterns(open);
  const languageOf = useLanguageGuess();
  const toast = useToast();
  const act = useAct();
  const navigate = useNavigate();
  const { revalidate } = useRevalidator();
  const busy = useRef(false);
  const offers = useOffers(open);
  // An opening and a closing that the house lacks in this language come where somebody says so.
  const [isWhole, setWhole] = useState(false);
  const made = useMemo(() => {
    const found = open.strip.replies.find((one) => one.key === reply.key);
    if (!found) return null;
    const subject =
      found.useTemplateSubject && found.subject ? { from: "reply" as const } : { from: "thread" as const };
    const bare = previewOf(open, firstSlips(found, open.usual), patterns, languageOf, subject);
    const lacks = aroundOffers(open, lacking(bare.letter, bare.slips), found.language);
    const whole = isWhole && lacks.length > 0;
    return {
      found,
      subject,
      lacks,
      ...(whole ? previewOf(open, withAround(bare.slips, lacks), patterns, languageOf, subject) : bare),
    };
  }, [open, reply.key, patterns, languageOf, isWhole]);
  const stopped = made === null || open.draft !== null || stopsSending(made.checks);

  const send = async () => {
    if (made === null || stopped || busy.current) return;
    busy.current = true;
    try {
      offers.take(made.found, open.strip.replies.indexOf(made.found));
      const draft = {
        version: 0,
        language: open.language,
        subject: made.subject,
        slips: made.slips.map(keptSlip),
        offers: offers.all(),
      };
      const response = await postDraft(open.number, draft);
      const kept = savedDraft.safeParse(await response.json());
      const sent = kept.success
        ? await requestSending(open.number, {
            version: kept.data.version,
            lastMessage: open.lastMessage,
            seen: open.seen,
            facts: factsRead(made.slips, open.context),
          })
        : { problem: t("theAnswerCouldNotBeSaved") };
      if ("problem" in sent) {
        toast({ words: sent.problem, tone: "stop" });
        return;
      }
      tellSent(sent, { act, toast, navigate });
      onClose(true);
      await revalidate();
    } catch (error) {
      toast({
        words: t("itWasNotSentError", { error: reasonOf(error) }),
        tone: "stop",
      });
    } finally {
      busy.current = false;
    }
  };

  useShortcut("sendHere", () => void send());

  return (
    <>
      <div className="min-h-0 grow overflow-y-auto py-3">
        {made === null ? (
          <p>{t("thisReplyDoesNotStandOn")}</p>
        ) : (
          <>
            <p className="mb-2 text-sm text-soft">
              {made.letter.subject && `${made.letter.subject}, `}
              {t("toRecipient", { recipient: open.recipient ?? t("noKnownAddress") })}
            </p>
            <div className="letter">
              <LetterBlocks blocks={made.letter.blocks} />
            </div>
            {made.lacks.length > 0 && (
              <label className="mt-2 flex items-center gap-1.5 text-sm text-soft">
                <Checkbox checked={isWhole} onChange={setWhole} />
                {t("withLacks", {
                  lacks: listed(
                    made.lacks.map(({ part }) =>
                      part === "opening" ? t("aPlainOpening") : t("aPlainClosing"),
                    ),
                  ),
                })}
              </label>
            )}
            <Signature open={open} />
            <ul className="mt-3 text-sm">
              {open.draft !== null && <li className="text-stop">{t("youHaveBegunAnotherAnswerOpen")}</li>}
              {made.checks.map((check, index) => (
                <li key={index} className={check.severity === "stop" ? "text-stop" : "text-look"}>
                  {check.message}
                </li>
              ))}
            </ul>
          </>
        )}
      </div>
      <p className="flex flex-wrap items-center gap-x-4 gap-y-2 border-t border-line pt-3">
        <Button keys="Ctrl Enter" disabled={stopped} onClick={() => void send()}>
          {t("send")}
        </Button>
        <Link to={`/cases/${row.number}`} className="quiet-link">
          {t("openTheCase")}
        </Link>
        <button type="button" className="quiet-link" onClick={() => onClose(false)}>
          {t("close")}
        </button>
        <Kbd keys="Esc" />
      </p>
    </>
  );
}
