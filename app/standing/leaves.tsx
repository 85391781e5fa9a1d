import { ArrowDown, ArrowUp } from "lucide-react";
import { useEffect, useState } from "react";
import { Link } from "react-router";
import * as z from "zod/mini";
import type { Side } from "#core/standing/tally";
import { listed } from "#core/text/counted";
import type { PastShown } from "#server/standing/rehearse";
import { readFrom } from "../ui/read";
import { Time } from "../ui/time";
import { useSave } from "../ui/use-save";
import { t } from "../words/standing";

const titles: Record<Exclude<Side, "none">, () => string> = {
  otherwise: () => t("otherwiseTitle"),
  agreed: () => t("agreedTitle"),
  unanswered: () => t("unansweredTitle"),
  missed: () => t("missedTitle"),
  held: () => t("heldTitle"),
};

/** The messages of one side of a rehearsal, to leaf through: what was asked, what the rule would have sent, what was. */
export function Leaves({ rule, side, all }: { rule: number; side: Side; all: PastShown[] }) {
  const [at, setAt] = useState(0);
  const chosen = all[at];
  if (side === "none" || !chosen) return null;
  const arrow = "rounded-sm border border-line bg-sheet p-1 disabled:opacity-40";
  return (
    <section aria-label={titles[side]()} className="min-w-0 py-3 xl:overflow-y-auto">
      <p className="flex items-center gap-1.5">
        <strong>{titles[side]()}</strong>
        <span className="mr-1 ml-auto text-sm text-soft tabular-nums">
          {t("placeOf", { place: at + 1, of: all.length })}
        </span>
        <button
          type="button"
          aria-label={t("previous")}
          disabled={at === 0}
          className={arrow}
          onClick={() => setAt(at - 1)}
        >
          <ArrowUp size={14} aria-hidden="true" />
        </button>
        <button
          type="button"
          aria-label={t("next")}
          disabled={at === all.length - 1}
          className={arrow}
          onClick={() => setAt(at + 1)}
        >
          <ArrowDown size={14} aria-hidden="true" />
        </button>
      </p>
      <Leaf key={chosen.message} rule={rule} side={side} past={chosen} />
      <ul className="mt-3 flex flex-col gap-3">
        {all.slice(at + 1, at + 4).map((past, index) => (
          <li key={past.message}>
            <button
              type="button"
              className="block w-full bg-sheet px-4 py-3 text-left"
              onClick={() => setAt(at + 1 + index)}
            >
              <Head past={past} />
              <Words words={past.words} className="line-clamp-2" />
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
}

function Head({ past }: { past: PastShown }) {
  return (
    <span className="flex gap-3 border-b border-line pb-1.5 text-sm">
      <strong className="whitespace-nowrap">
        {past.label}, <Time at={past.at} />
      </strong>
      <span className="ml-auto truncate text-soft">{past.customer}</span>
    </span>
  );
}

function Words({ words, className = "" }: { words: string; className?: string }) {
  return (
    <span className={`mt-2 block font-serif [overflow-wrap:anywhere] whitespace-pre-line ${className}`}>
      {words}
    </span>
  );
}

function Leaf({ rule, side, past }: { rule: number; side: Side; past: PastShown }) {
  const { send } = useSave("/standing");
  const [should, setShould] = useState(past.should);
  const letter = useLetter(
    side === "missed" || side === "held" ? null : `/standing/${rule}/as-sent/${past.message}`,
  );
  const mark = async (said: boolean | null) => {
    if (await send(`${rule}/mark`, { message: past.message, should: said })) setShould(said);
  };
  return (
    <article className="mt-3 bg-sheet px-4 py-3">
      <Link to={`/cases/${past.case}`} className="block hover:underline">
        <Head past={past} />
      </Link>
      <Words words={past.words} />
      <div className="mt-3 grid grid-cols-2 gap-4 border-t border-line pt-3 text-sm">
        <div className="min-w-0">
          <strong className="text-stop">{t("thisRule")}</strong>
          {letter && <Words words={letter.text} />}
          {letter?.stops != null && (
            <p className="mt-1 text-stop">{t("wouldNotGo", { why: letter.stops })}</p>
          )}
          {(side === "missed" || side === "held") && <p className="mt-2 text-soft">{past.why}</p>}
        </div>
        <div className="min-w-0">
          <strong>{past.answer === null ? t("nobody") : (past.answer.by ?? "")}</strong>
          {past.answer && (
            <>
              {past.answer.titles.length > 0 && (
                <span className="block text-soft">{listed(past.answer.titles)}</span>
              )}
              <Words words={past.answer.words} />
            </>
          )}
        </div>
      </div>
      <p className="mt-3 flex flex-wrap items-baseline gap-x-4 gap-y-1 text-sm">
        {should === null ? (
          <>
            <button type="button" className="quiet-link" onClick={() => void mark(false)}>
              {t("shouldNot")}
            </button>
            <button type="button" className="quiet-link" onClick={() => void mark(true)}>
              {t("wasRight")}
            </button>
          </>
        ) : (
          <>
            {t(should ? "saidShould" : "saidShouldNot")}
            <button type="button" className="text-soft underline" onClick={() => void mark(null)}>
              {t("takeBack")}
            </button>
          </>
        )}
      </p>
    </article>
  );
}

const asSent = z.object({ text: z.string(), stops: z.nullable(z.string()) });

/** The letter that a rule would send; null until it is here. @param path null for none */
function useLetter(path: string | null): z.infer<typeof asSent> | null {
  const [letter, setLetter] = useState<z.infer<typeof asSent> | null>(null);
  useEffect(() => {
    if (path === null) return;
    const gone = new AbortController();
    readFrom(path, gone.signal).then(
      (read) => setLetter(asSent.parse(read)),
      (error: unknown) => {
        if (!gone.signal.aborted) setLetter({ text: "", stops: String(error) });
      },
    );
    return () => gone.abort();
  }, [path]);
  return letter;
}
