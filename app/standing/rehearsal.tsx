import { useEffect, useState } from "react";
import { useRevalidator } from "react-router";
import { Bar, BarChart, XAxis, YAxis } from "recharts";
import type { Condition } from "#core/conditions/condition";
import { sides, type Rehearsed, type Side } from "#core/standing/tally";
import type { RehearsalState } from "#server/standing/rehearsals";
import type { StandingRow } from "#server/standing/rules";
import { useAct } from "../ui/act";
import { Button } from "../ui/button";
import { FormProblem } from "../ui/form";
import { said, Select } from "../ui/select";
import { t } from "../words/standing";

interface Props {
  rule: StandingRow;
  state: RehearsalState;
  side: Side;
  onSide: (side: Side) => void;
  isDirty: boolean;
  /** A condition as a sentence. */
  words: (condition: Condition) => string;
  onAdd: (test: Condition) => void;
}

const SIZES = ["1000", "5000", "20000", "100000"] as const;
/** While it is under way, it is asked so often how far it is. */
const ASKED_MS = 400;

/** What a rule would have done with the messages of the past, and what begins to find out. */
export function Rehearsal({ rule, state, side, onSide, isDirty, words, onAdd }: Props) {
  const act = useAct();
  const [problem, setProblem] = useState<string | null>(null);
  const ask = async (most: number | null) => {
    const done = await act(`/standing/${rule.id}/rehearse`, { most });
    setProblem(done.ok ? null : done.problem);
  };
  const [size, setSize] = useState<(typeof SIZES)[number]>("5000");
  useAsked(state.kind === "read");
  const figures = state.kind === "done" ? state.rehearsal.figures : rule.rehearsed;
  const counted = (count: string) => t("messagesCount", { count: Number(count) });
  return (
    <section aria-label={t("rehearsal")} className="mt-5 border-t border-line pt-4">
      <p className="flex flex-wrap items-baseline gap-x-3 gap-y-1">
        {t("onTheLatest")}
        <Select
          label={t("onTheLatest")}
          value={size}
          options={said(SIZES, counted)}
          onChange={setSize}
          disabled={state.kind === "read"}
        />
        {state.kind === "read" ? (
          <>
            <span role="status" className="tabular-nums">
              {state.of === 0 ? t("beginning") : t("readOf", { read: state.read, of: state.of })}
            </span>
            <Button look="quiet" onClick={() => void ask(null)}>
              {t("giveUp")}
            </Button>
          </>
        ) : (
          <Button look="quiet" disabled={isDirty} onClick={() => void ask(Number(size))}>
            {t("rehearse")}
          </Button>
        )}
      </p>
      <FormProblem
        words={
          problem ?? (state.kind === "failed" ? t("rehearsalFailed", { problem: state.problem }) : undefined)
        }
      />
      {figures && (
        <Figures
          figures={figures}
          isOfMessages={rule.trigger.on === "arrival"}
          side={side}
          onSide={state.kind === "done" ? onSide : null}
        />
      )}
      {rule.rehearsed?.isOfThis === false && <p className="mt-2 text-look">{t("ofTheRuleBefore")}</p>}
      {state.kind === "done" && <Advice {...state.rehearsal} words={words} onAdd={onAdd} />}
      {state.kind === "none" && figures && <p className="mt-2 text-sm text-soft">{t("keptFigures")}</p>}
    </section>
  );
}

/** Asks again and again how far something is, while it is under way. */
function useAsked(isUnderWay: boolean): void {
  const { revalidate, state } = useRevalidator();
  useEffect(() => {
    if (!isUnderWay || state !== "idle") return;
    const timer = setTimeout(() => void revalidate(), ASKED_MS);
    return () => clearTimeout(timer);
  }, [isUnderWay, state, revalidate]);
}

const sideWords: Record<Side, () => string> = {
  agreed: () => t("agreedWords"),
  otherwise: () => t("otherwiseWords"),
  unanswered: () => t("unansweredWords"),
  missed: () => t("missedWords"),
  held: () => t("heldWords"),
  none: () => t("noneWords"),
};

const colours: Record<Side, string> = {
  agreed: "var(--accent)",
  otherwise: "var(--stop)",
  unanswered: "var(--soft)",
  missed: "var(--look)",
  held: "var(--ink)",
  none: "var(--line)",
};

/** From what it does to what it leaves. */
const SHOWN: readonly Side[] = ["agreed", "otherwise", "unanswered", "missed", "held", "none"];

function Figures({
  figures,
  isOfMessages,
  side,
  onSide,
}: {
  figures: Rehearsed;
  /** Whether it is asked of messages that come in. */
  isOfMessages: boolean;
  side: Side;
  /** Null while there is nothing to read. */
  onSide: ((side: Side) => void) | null;
}) {
  const known = SHOWN.filter((one) => figures[one] > 0 || one === "agreed" || one === "otherwise");
  return (
    <div className="mt-3">
      <h2 className="flex items-baseline font-bold">
        {t(isOfMessages ? "inTheLastMessages" : "ofTheLastTimes", { count: figures.messages })}
        <span className="ml-auto text-sm font-normal text-soft">
          {t("readIn", { seconds: Math.round(figures.milliseconds / 100) / 10 })}
        </span>
      </h2>
      <div aria-hidden="true" className="mt-1">
        <BarChart
          layout="vertical"
          responsive
          style={{ width: "100%", height: 22 }}
          data={[Object.fromEntries(sides.map((one) => [one, figures[one]]))]}
          margin={{ top: 0, right: 0, bottom: 0, left: 0 }}
          accessibilityLayer={false}
        >
          <XAxis type="number" hide domain={[0, Math.max(1, figures.messages)]} />
          <YAxis type="category" hide />
          {SHOWN.map((one) => (
            <Bar key={one} dataKey={one} stackId="all" fill={colours[one]} isAnimationActive={false} />
          ))}
        </BarChart>
      </div>
      <ul className="mt-2 flex flex-col gap-0.5">
        {known.map((one) => {
          const words = (
            <>
              <strong className="inline-block min-w-12 tabular-nums">
                {figures[one].toLocaleString("en")}
              </strong>{" "}
              {sideWords[one]()}
            </>
          );
          return (
            <li key={one} className="flex items-baseline gap-2">
              <span
                aria-hidden="true"
                className="inline-block size-2.5 shrink-0"
                style={{ background: colours[one] }}
              />
              {onSide && one !== "none" && figures[one] > 0 ? (
                <button
                  type="button"
                  aria-pressed={one === side}
                  className={`text-left ${one === side ? "border-b-2 border-ink" : "border-b border-line hover:border-ink"}`}
                  onClick={() => onSide(one)}
                >
                  {words}
                </button>
              ) : (
                <span className="text-soft">{words}</span>
              )}
            </li>
          );
        })}
      </ul>
      {figures.wrong > 0 && <p className="mt-2 text-stop">{t("wrongOfMarked", { count: figures.wrong })}</p>}
    </div>
  );
}

/** What would make the rule better: a further test, and other rules that are for the same messages. */
function Advice({
  figures,
  suggestion,
  clashes,
  words,
  onAdd,
}: (RehearsalState & { kind: "done" })["rehearsal"] & Pick<Props, "words" | "onAdd">) {
  return (
    <div className="mt-3 flex flex-col gap-1 text-sm">
      {suggestion && (
        <p>
          {t("oneMoreTest", {
            count: suggestion.otherwise,
            of: figures.otherwise,
            test: words(suggestion.test),
          })}{" "}
          {suggestion.agreed > 0 && `${t("costsAgreed", { count: suggestion.agreed })} `}
          <button type="button" className="quiet-link" onClick={() => onAdd(suggestion.test)}>
            {t("addIt")}
          </button>
        </p>
      )}
      {clashes.map(({ name, count }) => (
        <p key={name} className="text-look">
          {t("clashWith", { name, count })}
        </p>
      ))}
    </div>
  );
}
