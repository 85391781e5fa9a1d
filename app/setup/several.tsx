import { Controller, type FieldPath, type FieldValues } from "react-hook-form";
import { FieldProblem, type FormOf } from "../ui/form";
import { ManyPicker } from "../ui/many-picker";

interface Props<Input extends FieldValues> {
  form: FormOf<Input>;
  /** Of a list. */
  name: FieldPath<Input>;
  label: string;
  /** What choosing none says. */
  all: string;
  options: readonly string[];
  nameOf?: (one: string) => string;
  read?: (one: string) => unknown;
}

/** Several of few in a form, with its label above; none of them is all of them. */
export function Several<Input extends FieldValues>({
  form,
  name,
  label,
  all,
  options,
  nameOf = (one) => one,
  read = (one) => one,
}: Props<Input>) {
  return (
    <span className="flex w-40 flex-col gap-0.5">
      {label}
      <Controller
        control={form.control}
        name={name}
        render={({ field, fieldState }) => {
          const value = (field.value as (string | number)[]).map(String);
          return (
            <>
              <ManyPicker
                label={label}
                value={value}
                options={options}
                nameOf={nameOf}
                words={value.map(nameOf).join(", ")}
                placeholder={all}
                onChange={(chosen) => field.onChange(chosen.map(read))}
                className="lined-field text-base"
              />
              <FieldProblem words={fieldState.error?.message} />
            </>
          );
        }}
      />
    </span>
  );
}
