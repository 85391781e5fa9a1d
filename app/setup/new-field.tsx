import { Controller, useWatch } from "react-hook-form";
import { newFieldSchema } from "#core/forms/house";
import { fieldTypes } from "#core/tokens/fields";
import { Button } from "../ui/button";
import { FormProblem, LineInput, taken, useFormOf } from "../ui/form";
import { said, Select } from "../ui/select";
import { useSave } from "../ui/use-save";
import { FieldAsked } from "./field-asked";
import { t } from "../words/setup";

/** Of what a field is, as its list is headed. */
export const OF = () =>
  ({
    case: t("ofTheCase"),
    customer: t("ofTheCustomer"),
    organisation: t("ofTheOrganisation"),
    agent: t("ofTheColleague"),
  }) as const;

const owners = () =>
  [
    ["case", t("theCase")],
    ["customer", t("theCustomer")],
    ["organisation", t("theOrganisation")],
    ["agent", t("theColleague")],
  ] as const;

/** What a kind of value is called. */
export function kindName(type: (typeof fieldTypes)[number]): string {
  return type === "yes_no" ? t("yesOrNoKind") : type.replace("_", " ");
}

/** Adds a field. */
export function NewField({ topics }: { topics: string[] }) {
  const form = useFormOf(newFieldSchema, {
    ...{ label: "", type: "text", of: "case" },
    ...{ options: [], topics: [], required: false },
  });
  const { act } = useSave("/setup");
  const { errors } = form.formState;
  const [type, of] = useWatch({ control: form.control, name: ["type", "of"] });
  const add = form.handleSubmit(async (input) => {
    if (taken(form, await act("new-field", input, t("repliesCanUseItNow")))) form.reset();
  });
  return (
    <form
      noValidate
      aria-label={t("aNewField")}
      className="mt-8 max-w-3xl border-t border-line pt-4"
      onSubmit={(event) => void add(event)}
    >
      <div className="flex flex-wrap items-end gap-5">
        <label className="flex grow flex-col gap-1 text-sm">
          {t("aNewField")}
          <LineInput
            field={form.register("label")}
            problem={errors.label?.message}
            className="text-base"
            placeholder={t("harbourConcerned")}
          />
        </label>
        <label className="flex flex-col gap-1 text-sm">
          {t("kind")}
          <Controller
            control={form.control}
            name="type"
            render={({ field }) => (
              <Select
                className="lined-field text-base"
                value={field.value}
                options={said(fieldTypes, kindName)}
                onChange={field.onChange}
              />
            )}
          />
        </label>
        <label className="flex flex-col gap-1 text-sm">
          {t("of")}
          <Controller
            control={form.control}
            name="of"
            render={({ field }) => (
              <Select
                className="lined-field text-base"
                value={field.value ?? "case"}
                options={owners()}
                onChange={field.onChange}
              />
            )}
          />
        </label>
        <Button type="submit">{t("addField")}</Button>
      </div>
      <FieldAsked
        isChoice={type === "choice"}
        isOfCase={of === "case"}
        topics={topics}
        control={form.control}
        problem={errors.options?.message ?? errors.options?.root?.message}
      />
      <FormProblem words={errors.root?.message ?? errors.type?.message} />
    </form>
  );
}
