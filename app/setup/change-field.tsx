import { fieldChangeSchema } from "#core/forms/house";
import type { FieldRow } from "#server/fields/fields";
import { Button } from "../ui/button";
import { Dialog, DialogFoot } from "../ui/dialog";
import { FormProblem, LineInput, taken, useFormOf } from "../ui/form";
import { useSave } from "../ui/use-save";
import { FieldAsked } from "./field-asked";
import { t } from "../words/setup";

/** Calls a field otherwise, or asks for it otherwise. */
export function ChangeField({
  field,
  topics,
  onClose,
}: {
  field: FieldRow;
  topics: string[];
  onClose: () => void;
}) {
  const form = useFormOf(fieldChangeSchema, {
    label: field.label,
    options: field.options,
    topics: field.topics,
    required: field.required,
  });
  const { act } = useSave("/setup");
  const { errors, isSubmitting } = form.formState;
  const keep = form.handleSubmit(async (input) => {
    const done = await act(
      `fields/${field.of}/${field.key}/change`,
      input,
      t("fieldIsKept", { field: input.label }),
    );
    if (taken(form, done)) onClose();
  });
  return (
    <Dialog
      title={t("changeField", { field: field.label })}
      words={t("itsNameInRepliesStays")}
      onClose={onClose}
    >
      <form noValidate className="mt-4" onSubmit={(event) => void keep(event)}>
        <label className="flex flex-col gap-1 text-sm">
          {t("whatItIsCalled")}
          <LineInput field={form.register("label")} problem={errors.label?.message} className="text-base" />
        </label>
        <FieldAsked
          isChoice={field.type === "choice"}
          isOfCase={field.of === "case"}
          topics={topics}
          control={form.control}
          problem={errors.options?.message ?? errors.options?.root?.message}
        />
        <FormProblem words={errors.root?.message} />
        <DialogFoot className="mt-5" onCancel={onClose}>
          <Button type="submit" disabled={isSubmitting}>
            {t("keep")}
          </Button>
        </DialogFoot>
      </form>
    </Dialog>
  );
}
