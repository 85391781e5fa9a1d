import { useDeferredValue, useEffect, useMemo, useState } from "react";
import { compose } from "#core/compose/compose";
import { secondLook } from "#core/checks/second-look";
import type { SendCheck } from "#core/checks/check";
import type { Letter } from "#core/compose/letter";
import { chooseTrials, type Trial, type TrialCase } from "#core/compose/trials";
import { needsPatterns, type PatternEngine } from "#core/conditions/patterns";
import { tokensUsed } from "#core/checks/tokens-used";
import { textFor } from "#core/document/texts";
import type { TextChannel } from "#core/document/types";
import type { Token } from "#core/tokens/catalogue";
import type { Content } from "#server/replies/content";
import type { OpenReply } from "#server/writing/open";
import { channelName } from "#core/words/named";
import { usePatternEngine } from "../../ui/pattern-engine";
import { LetterBlocks } from "../../ui/letter-blocks";
import { Checkbox } from "../../ui/checkbox";
import { t } from "../../words/writing";

interface Props {
  open: OpenReply;
  content: Content;
  /** The channel whose own text is written: it is tried by that one; null for each case’s own. */
  own: TextChannel | null;
  /** Language of the variant that is written. */
  language: string;
  tokens: ReadonlyMap<string, Token>;
  pool: TrialCase[];
  pinned: number[];
  onPin: (number: number) => void;
  problem: string | null;
  /** The case whose values chips and menus show. */
  onTried: (one: TrialCase | null) => void;
}

interface Tried {
  trial: Trial;
  channel: TrialCase["channel"];
  letter: Letter;
  checks: SendCheck[];
}

/** The letter as it would read for several cases, the awkward ones among them, drawn anew as one types. */
export function TryOn({
  open,
  content,
  own,
  language,
  tokens,
  pool,
  pinned,
  onPin,
  problem,
  onTried,
}: Props) {
  const latest = useDeferredValue(content);
  const [asText, setAsText] = useState(false);
  const [number, setNumber] = useState("");
  const used = useMemo(() => tokensUsed(latest), [latest]);
  const key = [...used].sort().join();
  const { blanks, passages } = latest;
  const languages = latest.variants.map((variant) => variant.language).join();
  // Which cases are awkward depends on what the reply reads, not on each letter of its words.
  const trials = useMemo(
    () =>
      chooseTrials(
        {
          tokens: new Set(key === "" ? [] : key.split(",")),
          blanks,
          passages,
          languages: languages.split(","),
        },
        pool,
        pinned,
        tokens,
      ),
    [key, blanks, passages, languages, pool, pinned, tokens],
  );
  const { patterns, isReady } = usePatternEngine(useMemo(() => needsPatterns(passages), [passages]));
  const tried = useMemo(
    // No letter is shown whose passages cannot be decided yet.
    () =>
      isReady ? trials.map((trial) => tryOn(trial, open, latest, { language, own }, tokens, patterns)) : [],
    [trials, open, latest, language, own, tokens, patterns, isReady],
  );
  const first = trials[0]?.case ?? null;
  useEffect(() => onTried(first), [first, onTried]);

  return (
    <div className="flex flex-col gap-4 text-sm">
      <form
        className="flex items-baseline gap-3"
        onSubmit={(event) => {
          event.preventDefault();
          const wanted = Number(number.replace(/\D/g, ""));
          if (wanted > 0) onPin(wanted);
          setNumber("");
        }}
      >
        <input
          aria-label={t("numberOfACaseToTry")}
          placeholder={t("caseNumber")}
          className="lined-field w-28"
          value={number}
          onChange={(event) => setNumber(event.target.value)}
        />
        <button type="submit" className="quiet-link">
          {t("tryOnIt")}
        </button>
        <label className="ml-auto flex items-center gap-1.5">
          <Checkbox checked={asText} onChange={setAsText} />
          {t("asPlainText")}
        </label>
      </form>
      {problem && (
        <p role="alert" className="text-stop">
          {problem}
        </p>
      )}
      {tried.length === 0 && !problem && <p className="text-soft">{t("thereAreNoCasesYetTo")}</p>}
      {tried.map(({ trial, channel, letter, checks }) => (
        <article
          key={trial.case.number}
          aria-label={t("forCustomer", { customer: trial.case.customer })}
          className="border-t-2 border-ink pt-2"
        >
          <p className="flex items-baseline gap-2">
            <strong className="min-w-0 truncate">{trial.case.customer}</strong>
            <span className="whitespace-nowrap text-soft tabular-nums">{trial.case.label}</span>
            <span className="ml-auto whitespace-nowrap text-soft">{channelName(channel)}</span>
          </p>
          <p className="text-look">{whyWords(trial.why)}</p>
          {letter.subject !== "" && <p className="mt-1 font-serif text-soft">{letter.subject}</p>}
          {channel !== "email" ? (
            // As it goes out: without any formatting.
            <div className="letter mt-2 whitespace-pre-wrap">{letter.text}</div>
          ) : asText ? (
            <pre className="mt-2 font-mono text-xs whitespace-pre-wrap">{letter.text}</pre>
          ) : (
            <div className="letter mt-2">
              <LetterBlocks blocks={letter.blocks} />
            </div>
          )}
          {letter.attachments.length > 0 && (
            <p className="text-soft">
              {t("withAttachments", { attachments: letter.attachments.map((file) => file.name).join(", ") })}
            </p>
          )}
          {checks.length > 0 && (
            <ul className="mt-1 flex flex-col gap-0.5">
              {checks.map((check) => (
                <li key={check.message} className={check.severity === "stop" ? "text-stop" : "text-look"}>
                  {check.severity === "stop" ? t("stopsSending", { message: check.message }) : check.message}
                </li>
              ))}
            </ul>
          )}
        </article>
      ))}
    </div>
  );
}

/** Why a case is tried, kept short. */
function whyWords(why: string[]): string {
  const shown = why.slice(0, 4).join("; ");
  return why.length > 4 ? t("shownAndCountMore", { shown, count: why.length - 4 }) : shown;
}

/** What the second look says of a reply alone would also be said of any letter that is only begun. */
const NOT_HERE = new Set(["no-recipient", "subject-changed", "sent-before", "other-greeting"]);

function tryOn(
  trial: Trial,
  open: OpenReply,
  content: Content,
  { language, own }: Pick<Props, "language" | "own">,
  tokens: ReadonlyMap<string, Token>,
  patterns: PatternEngine,
): Tried {
  const { context } = trial.case;
  const base = (tag: string) => tag.slice(0, 2);
  const channel = own ?? trial.case.channel;
  const variant =
    content.variants.find((one) => base(one.language) === base(trial.case.language)) ??
    content.variants.find((one) => one.language === language) ??
    content.variants[0];
  if (!variant) throw new Error("A reply has a variant at least");
  const slip = {
    id: "tried",
    reply: open.key,
    title: content.title,
    part: open.filing.part,
    document: textFor(variant, channel),
    blanks: content.blanks,
    passages: content.passages,
    values: trial.values,
    subject: variant.subject,
    attachments: [...content.files, ...content.pictures],
  };
  const inputs = {
    slips: [slip],
    context,
    channel,
    language: base(variant.language) === base(trial.case.language) ? trial.case.language : variant.language,
    tokens,
    patterns,
    signature: null,
    stationery: null,
    subject:
      content.useTemplateSubject || variant.subject
        ? ({ from: "reply" } as const)
        : ({ from: "thread" } as const),
    threadSubject: trial.case.subject,
    caseNumber: trial.case.label,
    attachments: [],
    contentId: (id: string) => id,
  };
  const letter = compose(inputs);
  const checks = secondLook({
    ...inputs,
    letter,
    recipient: "x",
    standing: { is: "known", news: null, confirmed: true },
    otherNames: [],
    sentReplies: [],
    languageOf: () => null,
  });
  return { trial, channel, letter, checks: checks.filter((check) => !NOT_HERE.has(check.code)) };
}
