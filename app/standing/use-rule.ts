import { useMemo } from "react";
import { useNavigate } from "react-router";
import * as z from "zod/mini";
import { labelOf } from "#core/compose/passages";
import type { Condition } from "#core/conditions/condition";
import { inWords } from "#core/conditions/in-words";
import { standingSchema, type StandingInput } from "#core/forms/standing";
import { catalogue, type Token } from "#core/tokens/catalogue";
import type { StandingAnswers, StandingRow } from "#server/standing/rules";
import { useAct } from "../ui/act";
import { taken, useFormOf, type FormOf } from "../ui/form";
import { useToast } from "../ui/toast";
import { t } from "../words/standing";

/** What a message is known by besides its own parts. */
export const besides = () => [["message.in_hours", t("inOurHours"), "yes_no"]] as const;

const savedRule = z.object({ id: z.int() });

/** What rules know of a message is of these groups. */
const KNOWN = new Set(["case", "customer", "organisation", "booking"]);

/** A rule while it is edited. */
export interface EditedRule {
  form: FormOf<StandingInput>;
  tokens: ReadonlyMap<string, Token>;
  save: () => void;
  inWords: (condition: Condition) => string;
  /** Asks for a test more. */
  addTest: (test: Condition) => void;
}

export function useRule(answers: StandingAnswers, rule: StandingRow | null): EditedRule {
  const act = useAct();
  const toast = useToast();
  const navigate = useNavigate();
  const form = useFormOf(standingSchema, {
    name: rule?.name ?? "",
    reply: rule?.reply ?? "",
    channels: rule?.channels ?? ["email"],
    mailboxes: rule?.mailboxes ?? [],
    when: rule?.when ?? null,
    oncePerSenderHours: rule?.oncePerSenderHours ?? 24,
    perHour: rule?.perHour ?? 60,
    delayMinutes: rule?.delayMinutes ?? 10,
    stop: rule?.stop ?? true,
  });
  const tokens = useMemo(
    () => new Map([...catalogue(answers.own)].filter(([name]) => KNOWN.has(name.split(".")[0] ?? ""))),
    [answers.own],
  );
  const save = form.handleSubmit(async (input) => {
    const outcome = await act("/standing/save", { id: rule?.id ?? null, rule: input }, savedRule);
    if (!taken(form, outcome) || !outcome.ok) return;
    form.reset(input);
    toast({ words: t("ruleIsSaved") });
    if (rule === null) await navigate(`/standing/${outcome.data.id}`);
  });
  const called = (name: string) =>
    besides().find(([one]) => one === name)?.[1] ?? labelOf(name, { blanks: {} }, tokens);
  return {
    form,
    tokens,
    save: () => void save(),
    inWords: (condition) => inWords(condition, called),
    addTest(test) {
      const when = form.getValues("when");
      const joined: Condition =
        when === null ? test : "all" in when ? { all: [...when.all, test] } : { all: [when, test] };
      form.setValue("when", joined, { shouldDirty: true });
    },
  };
}
