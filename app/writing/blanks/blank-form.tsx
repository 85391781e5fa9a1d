import { useEffect } from "react";
import { Controller, useWatch, type Path } from "react-hook-form";
import { asKind, blankFields, blankFormSchema, choicesOf, type BlankFields } from "#core/forms/blank";
import type { Blank } from "#core/tokens/blanks";
import { Checkbox } from "../../ui/checkbox";
import { DateField } from "../../ui/date-field";
import { FieldProblem, LineInput, useFormOf } from "../../ui/form";
import { Select } from "../../ui/select";
import { t } from "../../words/writing";

interface Props {
  name: string;
  blank: Blank;
  used: boolean;
  onChange: (blank: Blank) => void;
  onRemove: () => void;
}

const kinds = (): [Blank["kind"], string][] => [
  ["text", t("words")],
  ["long_text", t("severalLines")],
  ["number", t("number")],
  ["money", t("money")],
  ["date", t("date")],
  ["time", t("time")],
  ["choice", t("choice")],
  ["yes_no", t("yesOrNo")],
];
const ROW = "grid grid-cols-[7.5rem_1fr] items-baseline gap-2";
/** The fields that hold words, numbers or days. */
type Written = Exclude<keyof BlankFields, "kind" | "required" | "printed" | "many">;

/** Everything about one blank, kept as it is typed. What cannot be kept yet says why, and the blank stays as it was. */
export function BlankForm({ name, blank, used, onChange, onRemove }: Props) {
  const form = useFormOf(blankFormSchema, blankFields(blank));
  const { control, register } = form;
  const { errors } = form.formState;
  const { subscribe, trigger } = form;
  useEffect(
    () =>
      subscribe({
        formState: { values: true },
        callback: ({ values }) => {
          const read = blankFormSchema.safeParse(values);
          if (read.success) onChange(read.data);
          void trigger();
        },
      }),
    [subscribe, trigger, onChange],
  );
  const [kind, options, many, printed] = useWatch({ control, name: ["kind", "options", "many", "printed"] });

  const line = (
    label: string,
    key: Written,
    attributes: { type?: string; placeholder?: string; list?: string } = {},
  ) => (
    <label className={ROW}>
      {label}
      <span className="flex flex-col">
        <LineInput {...attributes} field={register(key)} problem={errors[key]?.message} step="any" />
      </span>
    </label>
  );
  const day = (label: string, key: "min" | "max") => (
    <div className={ROW}>
      {label}
      <span>
        <Controller
          control={control}
          name={key}
          render={({ field }) => <DateField label={label} value={field.value} onChange={field.onChange} />}
        />
        <FieldProblem words={errors[key]?.message} />
      </span>
    </div>
  );
  const check = (label: string, key: Path<BlankFields> & ("required" | "printed" | "many")) => (
    <label className="flex items-center gap-2">
      <Controller
        control={control}
        name={key}
        render={({ field }) => <Checkbox checked={field.value} onChange={field.onChange} />}
      />
      {label}
    </label>
  );
  return (
    <fieldset className="flex flex-col gap-2.5 border-l-[3px] border-ink pl-4">
      <legend className="sr-only">{t("theBlankBlank", { blank: blank.label ?? name })}</legend>
      {line(t("asks"), "label")}
      <label className={ROW}>
        {t("kind")}
        <Select
          value={kind}
          options={kinds()}
          onChange={(next) => form.reset(asKind(form.getValues(), next))}
        />
      </label>
      {kind === "choice" && (
        <>
          <label className="grid grid-cols-[7.5rem_1fr] gap-2">
            {t("choicesALineEach")}
            <span className="flex flex-col">
              <textarea
                {...register("options")}
                className="boxed-field"
                aria-invalid={errors.options !== undefined}
                rows={Math.min(8, Math.max(3, choicesOf(options).length + 1))}
              />
              <FieldProblem words={errors.options?.message} />
            </span>
          </label>
          {check(t("severalMayBeChosen"), "many")}
          {many && (
            <>
              {line(t("joinedBy"), "join", {
                placeholder: t("andAndBeforeTheLast"),
                list: "usual-joins",
              })}
              <datalist id="usual-joins">
                {[", ", "; ", " and ", " or ", " / "].map((join) => (
                  <option key={join} value={join} />
                ))}
              </datalist>
            </>
          )}
        </>
      )}
      {(kind === "number" || kind === "money") && (
        <>
          {line(t("atLeast"), "min", { type: "number" })}
          {line(t("atMost"), "max", { type: "number" })}
        </>
      )}
      {kind === "number" && line(t("inStepsOf"), "step", { type: "number" })}
      {kind === "money" && line(t("currency"), "currency")}
      {kind === "date" && (
        <>
          {day(t("from"), "min")}
          {day(t("until"), "max")}
        </>
      )}
      {(kind === "text" || kind === "long_text") &&
        line(t("atMostThisManyCharacters"), "max", { type: "number" })}
      {line(t("hint"), "hint")}
      {line(t("beginsWith"), "default", { placeholder: t("wordsOrATokenAsIn") })}
      {check(t("mustBeFilled"), "required")}
      {check(t("printedInTheLetter"), "printed")}
      {!printed && <p className="text-soft">{t("itOnlySteersPassages")}</p>}
      <p className="flex items-baseline gap-4">
        <code className="text-soft">{`{$blank.${name}}`}</code>
        <button type="button" className="quiet-link ml-auto" disabled={used} onClick={onRemove}>
          {used ? t("inUseInTheWordsOr") : t("removeTheBlank")}
        </button>
      </p>
    </fieldset>
  );
}
