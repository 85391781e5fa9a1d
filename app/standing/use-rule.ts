import { useMemo } from "react";
import { useLocation, useNavigate } from "react-router";
import * as z from "zod/mini";
import { labelOf } from "#core/compose/passages";
import type { Condition } from "#core/conditions/condition";
import { inWords } from "#core/conditions/in-words";
import { standingSchema, type StandingInput } from "#core/forms/standing";
import { catalogue, type Token } from "#core/tokens/catalogue";
import type { MessagePart } from "../writing/conditions/condition-form";
import { useBesides } from "./besides";
import type { StandingAnswers, StandingRow } from "#server/standing/rules";
import { useAct } from "../ui/act";
import { taken, useFormOf, type FormOf } from "../ui/form";
import { useToast } from "../ui/toast";
import { t } from "../words/standing";

const clash = z.object({ name: z.string(), isOn: z.boolean(), count: z.int() });
const savedRule = z.object({ id: z.int(), clashes: z.nullable(z.array(clash)) });
/** Rules that are for the same as the one that was just saved; kept with the page. */
const savedWith = z.object({ clashes: z.array(clash) });

/** What rules know of a message is of these groups. */
const KNOWN = new Set(["case", "customer", "organisation", "booking"]);

/** A rule while it is edited. */
export interface EditedRule {
  form: FormOf<StandingInput>;
  tokens: ReadonlyMap<string, Token>;
  /** What a message and its case are known by besides. */
  besides: readonly MessagePart[];
  save: () => void;
  inWords: (condition: Condition) => string;
  /** Asks for a test more. */
  addTest: (test: Condition) => void;
  /** Rules that are for the same, as the rule was saved last; empty after it was changed. */
  clashes: readonly z.infer<typeof clash>[];
}

export function useRule(answers: StandingAnswers, rule: StandingRow | null): EditedRule {
  const act = useAct();
  const toast = useToast();
  const navigate = useNavigate();
  const form = useFormOf(standingSchema, {
    name: rule?.name ?? "",
    trigger: rule?.trigger ?? { on: "arrival" },
    reply: rule?.reply ?? "",
    channels: rule?.channels ?? ["email"],
    mailboxes: rule?.mailboxes ?? [],
    when: rule?.when ?? null,
    oncePerSenderHours: rule?.oncePerSenderHours ?? 24,
    perHour: rule?.perHour ?? 60,
    delayMinutes: rule?.delayMinutes ?? 10,
    stop: rule?.stop ?? true,
    effects: rule?.effects ?? {},
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
    const { id, clashes } = outcome.data;
    await navigate(`/standing/${id}`, { replace: rule !== null, state: { clashes: clashes ?? [] } });
  });
  const { besides, valueCalled } = useBesides(answers);
  const { state: kept } = useLocation() as { state: unknown };
  const clashes = savedWith.safeParse(kept).data?.clashes ?? [];
  const called = (name: string) =>
    besides.find(([one]) => one === name)?.[1] ?? labelOf(name, { blanks: {} }, tokens);
  return {
    form,
    tokens,
    save: () => void save(),
    besides,
    clashes: form.formState.isDirty ? [] : clashes,
    inWords: (condition) => inWords(condition, called, valueCalled),
    addTest(test) {
      const when = form.getValues("when");
      const joined: Condition =
        when === null ? test : "all" in when ? { all: [...when.all, test] } : { all: [when, test] };
      form.setValue("when", joined, { shouldDirty: true });
    },
  };
}
