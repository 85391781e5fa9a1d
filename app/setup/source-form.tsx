import { useFieldArray, type FieldArrayWithId } from "react-hook-form";
import { sourceSchema, type SourceInput } from "#core/forms/source";
import { tokenTypes } from "#core/tokens/catalogue";
import type { SourceRow } from "#server/details/sources";
import { Button } from "../ui/button";
import { FieldProblem, FormProblem, LineInput, taken, useFormOf, type FormOf } from "../ui/form";
import { said } from "../ui/select";
import { useSave } from "../ui/use-save";
import { BoxField } from "./box-field";
import { ChoiceField } from "./choice-field";
import { SourceTry } from "./source-try";
import { t } from "../words/setup";

const NEW: SourceInput = {
  ...{ name: "", address: "", pattern: "", timeoutSeconds: 4, cacheMinutes: 60, headers: [] },
  fields: [{ key: "", label: "", type: "text", path: "$.", isShown: true, always: false }],
};

function inputOf(source: SourceRow): SourceInput {
  const { name, address, pattern, timeoutSeconds, cacheMinutes, headers, fields } = source;
  return {
    ...{ name, address, pattern, timeoutSeconds, cacheMinutes },
    headers: headers.map((header) => ({ name: header, value: "" })),
    fields: fields.map(({ key, label, type, path, isShown, always }) => ({
      ...{ key, label, type, path, isShown, always },
    })),
  };
}

/** One outside system: where it is asked, by what, and what of its answer is read. */
export function SourceForm({ source }: { source: SourceRow | null }) {
  const { act, send, problem } = useSave("/setup");
  const form = useFormOf(sourceSchema, source ? inputOf(source) : NEW);
  const { register, formState } = form;
  const { errors, isDirty, isSubmitting } = formState;
  const save = form.handleSubmit(async (input) => {
    if (!taken(form, await act("save-source", { id: source?.id ?? null, source: input }))) return;
    form.reset(source ? kept(form.getValues()) : undefined);
  });
  return (
    <form
      noValidate
      aria-label={source?.name ?? t("anotherSource")}
      className="flex flex-col gap-4 text-sm"
      onSubmit={(event) => void save(event)}
    >
      <div className="flex flex-wrap items-end gap-x-6 gap-y-2.5">
        <label className="flex w-56 flex-col gap-0.5">
          {t("whatItIsCalled")}
          <LineInput field={register("name")} problem={errors.name?.message} className="text-base" />
        </label>
        <label className="flex min-w-72 grow flex-col gap-0.5">
          {t("sourcesAddress")}
          <LineInput
            field={register("address")}
            problem={errors.address?.message}
            placeholder={t("sourceAddressExample")}
            className="font-mono text-sm"
          />
        </label>
        <label className="flex w-full flex-col gap-0.5">
          {t("howItsReferencesLook")}
          <LineInput
            field={register("pattern")}
            problem={errors.pattern?.message}
            placeholder={t("patternExample")}
            className="font-mono text-sm"
          />
        </label>
        <Seconds form={form} name="timeoutSeconds" label={t("waitsFor")} unit={t("secondsUnit")} />
        <Seconds form={form} name="cacheMinutes" label={t("asksAnewAfter")} unit={t("minutes")} />
      </div>
      <Headers form={form} />
      <Fields form={form} source={source} />
      <div className="flex flex-wrap items-baseline gap-5">
        {(source === null || isDirty) && (
          <Button type="submit" disabled={isSubmitting}>
            {source === null ? t("addSource") : t("save")}
          </Button>
        )}
        {source !== null && !isDirty && (
          <>
            <SourceTry id={source.id} />
            <button
              type="button"
              className="quiet-link"
              onClick={() => void send(`sources/${source.id}/remove`, {}, t("sourceIsRemoved"))}
            >
              {t("remove")}
            </button>
          </>
        )}
      </div>
      <FormProblem words={errors.root?.message ?? problem ?? undefined} />
    </form>
  );
}

/** What is kept: secrets are not shown again. */
function kept(input: SourceInput): SourceInput {
  return { ...input, headers: input.headers.map(({ name }) => ({ name, value: "" })) };
}

function Seconds({
  form,
  name,
  label,
  unit,
}: {
  form: FormOf<SourceInput>;
  name: "timeoutSeconds" | "cacheMinutes";
  label: string;
  unit: string;
}) {
  return (
    <label className="flex flex-col gap-0.5">
      {label}
      <span className="flex items-baseline gap-2 text-base">
        <LineInput
          type="number"
          field={form.register(name, { valueAsNumber: true })}
          problem={form.formState.errors[name]?.message}
          className="w-20"
        />
        {unit}
      </span>
    </label>
  );
}

/** What a request says of itself: what it says is never shown again. */
function Headers({ form }: { form: FormOf<SourceInput> }) {
  const { fields, append, remove } = useFieldArray({ control: form.control, name: "headers" });
  const { errors } = form.formState;
  return (
    <fieldset>
      <legend className="font-bold">{t("headers")}</legend>
      {fields.map((field, index) => (
        <div key={field.id} className="mt-1 flex flex-wrap items-baseline gap-x-4 gap-y-1">
          <span className="flex w-56 flex-col gap-0.5">
            <LineInput
              aria-label={t("headerName")}
              field={form.register(`headers.${index}.name`)}
              problem={errors.headers?.[index]?.name?.message}
              placeholder={t("headerExample")}
              className="font-mono text-sm"
            />
          </span>
          <span className="flex min-w-56 grow flex-col gap-0.5">
            <LineInput
              aria-label={t("headerValue")}
              type="password"
              autoComplete="off"
              field={form.register(`headers.${index}.value`)}
              problem={errors.headers?.[index]?.value?.message}
              placeholder={t("headerIsKept")}
              className="text-sm"
            />
          </span>
          <button type="button" className="quiet-link" onClick={() => remove(index)}>
            {t("remove")}
          </button>
        </div>
      ))}
      <FieldProblem words={errors.headers?.message ?? errors.headers?.root?.message} />
      <button type="button" className="quiet-link mt-1" onClick={() => append({ name: "", value: "" })}>
        {t("addHeader")}
      </button>
    </fieldset>
  );
}

/** What of an answer is read, and becomes tokens. */
function Fields({ form, source }: { form: FormOf<SourceInput>; source: SourceRow | null }) {
  const { fields, append, remove } = useFieldArray({ control: form.control, name: "fields" });
  const { errors } = form.formState;
  const rowOf = (field: FieldArrayWithId<SourceInput, "fields">) =>
    field.key === "" ? undefined : source?.fields.find((one) => one.key === field.key);
  return (
    <fieldset>
      <legend className="font-bold">{t("whatIsRead")}</legend>
      {fields.map((field, index) => {
        const row = rowOf(field);
        const isRead = (row?.uses.length ?? 0) > 0;
        const problems = errors.fields?.[index];
        return (
          <div
            key={field.id}
            role="group"
            aria-label={row?.label ?? t("anotherValue")}
            className="mt-1.5 flex flex-wrap items-end gap-x-4 gap-y-1 border-b border-line pb-1.5"
          >
            <label className="flex w-48 flex-col gap-0.5">
              {t("whatItIsCalled")}
              <LineInput
                field={form.register(`fields.${index}.label`)}
                problem={problems?.label?.message}
                className="text-base"
              />
            </label>
            <label className="flex w-52 flex-col gap-0.5">
              {t("whereItStands")}
              <LineInput
                field={form.register(`fields.${index}.path`)}
                problem={problems?.path?.message}
                className="font-mono text-sm"
              />
            </label>
            <ChoiceField
              form={form}
              name={`fields.${index}.type`}
              label={t("kind")}
              options={said(tokenTypes, (type) => type.replace("_", " "))}
              disabled={isRead}
              className="w-28"
            />
            <BoxField form={form} name={`fields.${index}.isShown`} label={t("shownBesideACase")} />
            <BoxField form={form} name={`fields.${index}.always`} label={t("alwaysThere")} />
            {!isRead && (
              <button type="button" className="quiet-link pb-1" onClick={() => remove(index)}>
                {t("remove")}
              </button>
            )}
            {row && (
              <span className="w-full text-soft">
                <code>{`{$${row.name}}`}</code>
                {isRead && `, ${t("readByReplies", { count: row.uses.length })}`}
              </span>
            )}
          </div>
        );
      })}
      <FieldProblem words={errors.fields?.message ?? errors.fields?.root?.message} />
      <button
        type="button"
        className="quiet-link mt-1.5"
        onClick={() => append({ key: "", label: "", type: "text", path: "$.", isShown: true, always: false })}
      >
        {t("addValue")}
      </button>
    </fieldset>
  );
}
