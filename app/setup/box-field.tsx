import { Controller, type FieldPath, type FieldValues } from "react-hook-form";
import { Checkbox } from "../ui/checkbox";
import { FieldProblem, type FormOf } from "../ui/form";

interface Props<Input extends FieldValues, Output> {
  form: FormOf<Input, Output>;
  name: FieldPath<Input>;
  label: string;
  className?: string;
}

/** Something of a form to tick. */
export function BoxField<Input extends FieldValues, Output>({
  form,
  name,
  label,
  className = "",
}: Props<Input, Output>) {
  return (
    <label className={`flex items-center gap-1.5 ${className}`}>
      <Controller
        control={form.control}
        name={name}
        render={({ field }) => <Checkbox checked={field.value === true} onChange={field.onChange} />}
      />
      {label}
    </label>
  );
}

/** Several words of a form, one a line. */
export function LinesField<Input extends FieldValues, Output>({
  form,
  name,
  label,
  className = "",
}: Props<Input, Output>) {
  return (
    <label className={`flex flex-col gap-0.5 ${className}`}>
      {label}
      <Controller
        control={form.control}
        name={name}
        render={({ field, fieldState }) => (
          <>
            <textarea
              rows={3}
              className="boxed-field"
              defaultValue={linesOf(field.value)}
              onChange={(event) =>
                field.onChange(event.target.value.split("\n").filter((line) => line.trim() !== ""))
              }
            />
            <FieldProblem words={fieldState.error?.message ?? fieldState.error?.root?.message} />
          </>
        )}
      />
    </label>
  );
}

function linesOf(value: unknown): string {
  return Array.isArray(value) ? value.join("\n") : "";
}
