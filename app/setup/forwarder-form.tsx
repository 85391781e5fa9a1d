import { useRef, useState } from "react";
import { Controller } from "react-hook-form";
import * as z from "zod/mini";
import { forwarderSchema, type ForwarderInput } from "#core/forms/forwarder";
import {
  forwardedFields,
  forwardedName,
  type ForwardedField,
  type ForwarderMarks,
} from "#core/mail/forwarded";
import type { ForwarderRow } from "#server/forwarders/forwarders";
import { useAct } from "../ui/act";
import { Button } from "../ui/button";
import { FieldProblem, FormProblem, LineInput, taken, useFormOf } from "../ui/form";
import { useSave } from "../ui/use-save";
import { BoxField } from "./box-field";
import { ChoiceField } from "./choice-field";
import { t } from "../words/setup";

const NOTHING: ForwarderMarks = { name: null, reference: null, deadline: null, text: null };
const exampleAnswer = z.object({ text: z.string() });

interface Props {
  forwarder: ForwarderRow | null;
  mailboxes: { id: number; address: string }[];
}

/** A forwarder: whose mail it is, one message marked up, and what is not let through. */
export function ForwarderForm({ forwarder, mailboxes }: Props) {
  const { act } = useSave("/setup");
  const form = useFormOf(forwarderSchema, {
    name: forwarder?.name ?? "",
    mailbox: forwarder?.mailbox ?? mailboxes[0]?.id ?? 0,
    sender: forwarder?.sender ?? "",
    example: forwarder?.example ?? "",
    marks: forwarder?.marks ?? NOTHING,
    rules: forwarder?.rules ?? { noLinks: true, noAddresses: true, noNumbers: true, most: null },
  });
  const { register, formState } = form;
  const { errors, isDirty, isSubmitting } = formState;
  const save = form.handleSubmit(async (input) => {
    const id = forwarder?.id ?? null;
    if (!taken(form, await act("save-forwarder", { id, forwarder: input }))) return;
    form.reset(form.getValues());
  });
  return (
    <form
      noValidate
      aria-label={forwarder?.name ?? t("anotherForwarder")}
      className="mt-2 flex flex-col gap-3 text-sm"
      onSubmit={(event) => void save(event)}
    >
      <div className="flex flex-wrap items-start gap-x-6 gap-y-2">
        <label className="flex w-52 flex-col gap-0.5">
          {t("name")}
          <LineInput field={register("name")} problem={errors.name?.message} className="text-base" />
        </label>
        <label className="flex w-64 flex-col gap-0.5">
          {t("itsMailComesFrom")}
          <LineInput
            field={register("sender")}
            problem={errors.sender?.message}
            placeholder={t("asInAtMarket")}
            className="text-base"
          />
        </label>
        <ChoiceField
          form={form}
          name="mailbox"
          label={t("toTheMailbox")}
          options={mailboxes.map(({ id, address }) => [String(id), address] as const)}
          read={Number}
          className="w-56"
        />
      </div>
      <Example form={form} />
      <fieldset className="flex flex-wrap items-center gap-x-5 gap-y-1.5">
        <legend className="float-left mr-1 text-soft">{t("whatItLetsThrough")}</legend>
        <BoxField form={form} name="rules.noLinks" label={t("links")} />
        <BoxField form={form} name="rules.noAddresses" label={t("mailAddresses")} />
        <BoxField form={form} name="rules.noNumbers" label={t("telephoneNumbers")} />
        <label className="flex items-baseline gap-1.5">
          {t("mostCharacters")}
          <input
            type="number"
            className="lined-field w-24"
            {...register("rules.most", {
              setValueAs: (value: unknown) => (value === "" || value === null ? null : Number(value)),
            })}
          />
          <FieldProblem words={errors.rules?.most?.message} />
        </label>
      </fieldset>
      <FormProblem words={errors.root?.message} />
      {(forwarder === null || isDirty) && (
        <p>
          <Button type="submit" disabled={isSubmitting}>
            {forwarder === null ? t("addTheForwarder") : t("save")}
          </Button>
        </p>
      )}
    </form>
  );
}

/** One of its messages, in which words are chosen and marked. */
function Example({ form }: { form: ReturnType<typeof useFormOf<ForwarderInput, ForwarderInput>> }) {
  const { control, formState, setValue, watch } = form;
  const [example, marks, sender] = watch(["example", "marks", "sender"]);
  const [problem, setProblem] = useState<string | undefined>();
  const area = useRef<HTMLTextAreaElement>(null);
  const act = useAct();
  const take = async () => {
    const done = await act("/setup/forwarder-example", { sender }, exampleAnswer);
    if (!done.ok) return setProblem(done.problem);
    setProblem(undefined);
    setValue("example", done.data.text.replace(/\r\n?/g, "\n"), { shouldDirty: true });
    setValue("marks", NOTHING, { shouldDirty: true });
  };
  const mark = (field: ForwardedField) => {
    const { selectionStart: from = 0, selectionEnd: to = 0 } = area.current ?? {};
    if (from === to) return setProblem(t("chooseWordsInItFirst"));
    setProblem(undefined);
    setValue("marks", { ...marks, [field]: { from, to } }, { shouldDirty: true });
    area.current?.focus();
  };
  const marked = forwardedFields.flatMap((field) => {
    const span = marks[field];
    return span ? [{ field, words: example.slice(span.from, span.to) }] : [];
  });
  return (
    <div className="flex flex-col gap-1.5">
      <label className="flex flex-col gap-0.5">
        {t("oneOfItsMessages")}
        <Controller
          control={control}
          name="example"
          render={({ field }) => (
            <textarea
              ref={(element) => {
                area.current = element;
                field.ref(element);
              }}
              name={field.name}
              rows={12}
              value={field.value}
              aria-invalid={formState.errors.example !== undefined}
              onBlur={field.onBlur}
              onChange={(event) => {
                field.onChange(event);
                // Other words, other places.
                if (marked.length > 0) setValue("marks", NOTHING, { shouldDirty: true });
              }}
              className="boxed-field font-mono text-xs"
            />
          )}
        />
        <FieldProblem words={formState.errors.example?.message} />
      </label>
      {sender.includes("@") && (
        <p>
          <button type="button" className="quiet-link" onClick={() => void take()}>
            {t("takeItsLatestMail")}
          </button>
        </p>
      )}
      <p className="flex flex-wrap items-baseline gap-x-3 gap-y-1">
        <span className="text-soft">{t("markWhatIsChosenAs")}</span>
        {forwardedFields.map((field) => (
          <button
            key={field}
            type="button"
            className="quiet-link"
            // The choice in the message stays.
            onMouseDown={(event) => event.preventDefault()}
            onClick={() => mark(field)}
          >
            {forwardedName(field)}
          </button>
        ))}
      </p>
      <FormProblem words={problem} />
      {marked.length === 0 ? (
        <p className="text-soft">{t("nothingIsMarkedYet")}</p>
      ) : (
        <dl className="grid grid-cols-[auto_minmax(0,1fr)_auto] gap-x-4 gap-y-1">
          {marked.map(({ field, words }) => (
            <div key={field} className="contents">
              <dt className="text-soft">{forwardedName(field)}</dt>
              <dd className="font-serif whitespace-pre-wrap [overflow-wrap:anywhere]">{words}</dd>
              <dd>
                <button
                  type="button"
                  aria-label={t("unmarkWhat", { what: forwardedName(field) })}
                  className="quiet-link"
                  onClick={() => setValue("marks", { ...marks, [field]: null }, { shouldDirty: true })}
                >
                  {t("unmark")}
                </button>
              </dd>
            </div>
          ))}
        </dl>
      )}
    </div>
  );
}
