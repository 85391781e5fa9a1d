import { listed } from "#core/text/counted";
import { MOST_HOURS } from "#core/forms/standing";
import type { Trigger } from "#core/standing/occasion";
import { caseStateName, caseStates } from "#core/words/case-states";
import type { StandingAnswers } from "#server/standing/rules";
import { FieldProblem } from "../ui/form";
import { ManyPicker } from "../ui/many-picker";
import { Select, type Option } from "../ui/select";
import { Part, Ticks } from "./part";
import type { EditedRule } from "./use-rule";
import { t } from "../words/standing";

/** What a rule may be asked of; a silence is the customer’s or ours. */
type Kind = "arrival" | "state" | "topic" | "owner" | "customer" | "us";

const kinds = (): Option<Kind>[] => [
  ["arrival", t("aMessageComesIn")],
  ["state", t("aCaseComesIntoAState")],
  ["topic", t("aCaseGetsATopic")],
  ["owner", t("aCaseBecomesSomebodys")],
  ["customer", t("theCustomerIsSilent")],
  ["us", t("weAreSilent")],
];

function kindOf(trigger: Trigger): Kind {
  return trigger.on === "silence" ? trigger.of : trigger.on;
}

/** What a rule is asked of to begin with. */
function newTrigger(kind: Kind): Trigger {
  switch (kind) {
    case "arrival":
    case "owner":
      return { on: kind };
    case "state":
      return { on: kind, into: ["settled"] };
    case "topic":
      return { on: kind, into: [] };
    case "customer":
      return { on: "silence", of: kind, hours: 72 };
    case "us":
      return { on: "silence", of: kind, hours: 8 };
  }
}

/** How long a silence is, as people say it. */
function long(hours: number): string {
  return hours % 24 === 0 ? t("daysCount", { count: hours / 24 }) : t("hoursCount", { count: hours });
}

/** When a rule is asked, as the beginning of its sentence. */
export function triggerWords(trigger: Trigger): string {
  switch (trigger.on) {
    case "arrival":
      return t("aMessageComesIn");
    case "owner":
      return t("aCaseBecomesSomebodys");
    case "state":
      return trigger.into.length === 0
        ? t("aCaseChangesItsState")
        : t("aCaseIs", { states: listed(trigger.into.map(caseStateName)) });
    case "topic":
      return trigger.into.length === 0
        ? t("aCaseChangesItsTopic")
        : t("aCasesTopicIs", { topics: listed(trigger.into) });
    case "silence":
      return t(trigger.of === "customer" ? "theCustomerIsSilentFor" : "weAreSilentFor", {
        long: Number.isNaN(trigger.hours) ? "…" : long(trigger.hours),
      });
  }
}

/** When a rule is asked: the part of its sentence that opens to choose it. */
export function TriggerPart({ edited: { form }, answers }: { edited: EditedRule; answers: StandingAnswers }) {
  const trigger = form.watch("trigger");
  const set = (next: Trigger) => form.setValue("trigger", next, { shouldDirty: true, shouldValidate: true });
  const isWrong = trigger.on === "silence" && !(trigger.hours >= 1 && trigger.hours <= MOST_HOURS);
  return (
    <Part label={t("whenItIsAsked")} words={triggerWords(trigger)} className="w-80 max-w-[90vw]">
      <Select
        label={t("whenItIsAsked")}
        value={kindOf(trigger)}
        options={kinds()}
        onChange={(kind) => set(newTrigger(kind))}
      />
      {trigger.on === "state" && (
        <Ticks
          all={caseStates.map((one) => ({ value: one, words: caseStateName(one) }))}
          chosen={trigger.into}
          onChange={(into) => set({ ...trigger, into })}
        />
      )}
      {trigger.on === "topic" && (
        <ManyPicker
          label={t("topics")}
          value={trigger.into}
          options={answers.topics}
          onChange={(into) => set({ ...trigger, into })}
          placeholder={t("anyTopic")}
          className="lined-field w-full"
          open
        />
      )}
      {trigger.on === "silence" && (
        <label className="flex items-baseline gap-3">
          {t("forHours")}
          <input
            type="number"
            min={1}
            value={Number.isNaN(trigger.hours) ? "" : trigger.hours}
            aria-invalid={isWrong}
            className="lined-field w-20"
            onChange={(event) => set({ ...trigger, hours: event.target.valueAsNumber })}
          />
          {trigger.hours >= 48 && trigger.hours % 24 === 0 && (
            <span className="text-soft">{long(trigger.hours)}</span>
          )}
        </label>
      )}
      {isWrong && <FieldProblem words={t("fromOneHourOn", { most: MOST_HOURS })} />}
      {trigger.on !== "arrival" && <p className="text-sm text-soft">{t("itsLatestMessageIsRead")}</p>}
    </Part>
  );
}
