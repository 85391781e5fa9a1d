import { listed } from "#core/text/counted";
import { useState } from "react";
import { noticeChannels } from "#core/notices/notice";
import { channelName } from "#core/words/named";
import type { StandingAnswers, StandingRow } from "#server/standing/rules";
import { Button } from "../ui/button";
import { FieldProblem, FormProblem } from "../ui/form";
import { ReplyChoice } from "../ui/reply-choice";
import { ConditionForm } from "../writing/conditions/condition-form";
import { firstTest } from "../writing/conditions/new-passage";
import { EffectsPart } from "./effects-part";
import { Part, PART, Ticks } from "./part";
import { TriggerPart } from "./trigger";
import type { EditedRule } from "./use-rule";
import { t } from "../words/standing";

const FILLED = "border-b border-accent bg-wash text-left";

interface Props {
  edited: EditedRule;
  answers: StandingAnswers;
  /** Null for a new one. */
  rule: StandingRow | null;
}

/** A rule as one sentence that is also its editor: each underlined part opens where it stands. */
export function Sentence({ edited, answers, rule }: Props) {
  const { form, tokens, besides, save, inWords } = edited;
  const { errors, isDirty, isSubmitting } = form.formState;
  const [title, setTitle] = useState(rule?.title ?? null);
  const [trigger, mailboxes, channels, when, delay, hours, most, stop] = form.watch([
    "trigger",
    "mailboxes",
    "channels",
    "when",
    "delayMinutes",
    "oncePerSenderHours",
    "perHour",
    "stop",
  ]);
  const addresses = answers.mailboxes.filter(({ id }) => mailboxes.includes(id)).map((one) => one.address);
  const dirty = { shouldDirty: true, shouldValidate: true } as const;
  return (
    <form
      noValidate
      aria-label={t("theRule")}
      onSubmit={(event) => {
        event.preventDefault();
        save();
      }}
    >
      <input
        {...form.register("name")}
        aria-label={t("itsName")}
        aria-invalid={errors.name !== undefined}
        placeholder={t("aNewRule")}
        maxLength={100}
        className="w-full border-b border-transparent bg-transparent text-xl font-bold hover:border-line focus:border-ink"
      />
      <FieldProblem words={errors.name?.message} />
      <p className="mt-3 max-w-3xl font-serif text-[21px] leading-[1.75]">
        {t("when_")} <TriggerPart edited={edited} answers={answers} />
        {trigger.on === "arrival" && " "}
        {t(trigger.on === "arrival" ? "comesInAt" : "onACaseAt")}{" "}
        <Part label={t("mailbox")} words={addresses.length === 0 ? t("anyMailbox") : listed(addresses)}>
          <Ticks
            all={answers.mailboxes.map((one) => ({ value: one.id, words: one.address }))}
            chosen={mailboxes}
            onChange={(next) => form.setValue("mailboxes", next, dirty)}
          />
        </Part>{" "}
        {t("by")}{" "}
        <Part
          label={t("channel")}
          words={channels.length === 0 ? t("anyChannel") : listed(channels.map((one) => channelName(one)))}
        >
          <Ticks
            all={noticeChannels.map((one) => ({ value: one, words: channelName(one) }))}
            chosen={channels}
            onChange={(next) => form.setValue("channels", next, dirty)}
          />
        </Part>
        , {when !== null && `${t("and")} `}
        <Part
          label={t("itsCondition")}
          words={when === null ? t("whateverItSays") : inWords(when)}
          className="w-[36rem] max-w-[90vw]"
        >
          {when === null ? (
            <button
              type="button"
              className="quiet-link self-start"
              onClick={() => form.setValue("when", firstTest({}, tokens), dirty)}
            >
              {t("addATest")}
            </button>
          ) : (
            <div className="flex flex-col gap-3">
              <ConditionForm
                condition={when}
                tokens={tokens}
                blanks={{}}
                besides={besides}
                onRemove={null}
                onChange={(next) => form.setValue("when", next, dirty)}
              />
              <span className="flex gap-4">
                {!("all" in when || "any" in when || "not" in when) && (
                  <button
                    type="button"
                    className="quiet-link"
                    onClick={() => form.setValue("when", { all: [when, firstTest({}, tokens)] }, dirty)}
                  >
                    {t("moreTests")}
                  </button>
                )}
                <button
                  type="button"
                  className="text-soft underline"
                  onClick={() => form.setValue("when", null, dirty)}
                >
                  {t("askForNothing")}
                </button>
              </span>
            </div>
          )}
        </Part>
        , {t("itIsAnsweredWith")}{" "}
        <span className="inline-block max-w-full align-baseline font-serif text-[21px] leading-[1.3]">
          <ReplyChoice
            title={title}
            className={FILLED}
            onChoose={(reply) => {
              form.setValue("reply", reply.key, dirty);
              setTitle(reply.title);
            }}
          />
        </span>{" "}
        {t("inTheCustomersLanguage")},{" "}
        <Part
          label={t("minutesToCallItBack")}
          words={delay > 0 ? t("afterMinutes", { count: delay }) : t("atOnce")}
        >
          <Number edited={edited} name="delayMinutes" label={t("minutesToCallItBack")} />
        </Part>
        ; <EffectsPart edited={edited} answers={answers} />.
      </p>
      <FieldProblem words={errors.reply?.message ?? rule?.idle ?? undefined} />
      <p className="mt-1 text-sm text-soft">{t("partsOpen")}</p>
      <p className="mt-3 max-w-3xl border-l-[3px] border-ink py-0.5 pl-3 leading-relaxed">
        <strong>{t("neverWhatever")}</strong>, {t("neverAutomatic")}{" "}
        <Part label={t("hoursBetween")} words={t("hoursCount", { count: hours })}>
          <Number edited={edited} name="oncePerSenderHours" label={t("hoursBetween")} />
        </Part>
        ; {t("moreThan")}{" "}
        <Part label={t("mostInAnHour")} words={String(most)}>
          <Number edited={edited} name="perHour" label={t("mostInAnHour")} />
        </Part>{" "}
        {t("inAnHour")}. {t("andAfterIt")}{" "}
        <button type="button" className={PART} onClick={() => form.setValue("stop", !stop, dirty)}>
          {stop ? t("thenNoOther") : t("thenOthersToo")}
        </button>
        .
      </p>
      <FormProblem words={errors.root?.message} />
      {edited.clashes.map(({ name, isOn, count }) => (
        <p key={name} role="status" className="mt-2 text-look">
          {t(isOn ? "clashWith" : "clashWithOff", { name, count })} {t("theFirstAnswers")}
        </p>
      ))}
      {(rule === null || isDirty) && (
        <Button type="submit" disabled={isSubmitting} className="mt-4">
          {t("saveTheRule")}
        </Button>
      )}
    </form>
  );
}

function Number({
  edited: { form },
  name,
  label,
}: {
  edited: EditedRule;
  name: "delayMinutes" | "oncePerSenderHours" | "perHour";
  label: string;
}) {
  const problem = form.formState.errors[name]?.message;
  return (
    <label className="flex items-baseline gap-3">
      {label}
      <input
        type="number"
        {...form.register(name, { valueAsNumber: true })}
        aria-invalid={problem !== undefined}
        className="lined-field w-20"
      />
      <FieldProblem words={problem} />
    </label>
  );
}
