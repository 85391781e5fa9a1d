import { useState } from "react";
import type { Side } from "#core/standing/tally";
import type { RehearsalState } from "#server/standing/rehearsals";
import type { RuleDid, StandingAnswers, StandingRow } from "#server/standing/rules";
import { Did } from "./did";
import { Leaves } from "./leaves";
import { Rehearsal } from "./rehearsal";
import { Sentence } from "./sentence";
import { Switches } from "./switches";
import { useRule } from "./use-rule";
import { t } from "../words/standing";

interface Props {
  answers: StandingAnswers;
  /** Null for a new one. */
  rule: StandingRow | null;
  rehearsal: RehearsalState;
  did: RuleDid[];
}

/** One rule: its sentence, whether it is on, its rehearsal and what it did; beside it the letters that the rehearsal found. */
export function Rule({ answers, rule, rehearsal, did }: Props) {
  const edited = useRule(answers, rule);
  const [side, setSide] = useState<Side>("otherwise");
  const found = rehearsal.kind === "done" ? rehearsal.rehearsal : null;
  return (
    <div className="grid min-h-0 grid-cols-[minmax(0,1fr)] gap-5 xl:grid-cols-[minmax(0,1fr)_minmax(0,26rem)]">
      <main className="min-w-0 bg-sheet px-6 py-6 xl:overflow-y-auto">
        <h1 className="sr-only">{rule?.name ?? t("aNewRule")}</h1>
        <Sentence edited={edited} answers={answers} rule={rule} />
        {rule && (
          <>
            <Switches rule={rule} isDirty={edited.form.formState.isDirty} />
            <Rehearsal
              rule={rule}
              state={rehearsal}
              side={side}
              onSide={setSide}
              isDirty={edited.form.formState.isDirty}
              words={edited.inWords}
              onAdd={edited.addTest}
            />
            <Did
              rule={rule.id}
              did={did}
              isAsked={rule.switchedOnAt !== null && rule.trigger.on === "arrival"}
            />
          </>
        )}
      </main>
      {rule && found && <Leaves key={side} rule={rule.id} side={side} all={found.shown[side] ?? []} />}
    </div>
  );
}
