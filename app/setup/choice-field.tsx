import { Controller, type FieldPath, type FieldValues } from "react-hook-form";
import { FieldProblem, type FormOf } from "../ui/form";
import { Select, type Option } from "../ui/select";

interface Props<Input extends FieldValues, Output> {
  form: FormOf<Input, Output>;
  name: FieldPath<Input>;
  label: string;
  options: readonly Option[];
  /** What is kept of a choice; the choice itself where it is left out. */
  read?: (value: string) => unknown;
  disabled?: boolean;
  className?: string;
}

/** One of few in a form, with its label above and what is wrong with it beneath. */
export function ChoiceField<Input extends FieldValues, Output>({
  form,
  name,
  label,
  options,
  read = (value) => value,
  disabled = false,
  className = "",
}: Props<Input, Output>) {
  return (
    <label className={`flex flex-col gap-0.5 text-sm ${className}`}>
      {label}
      <Controller
        control={form.control}
        name={name}
        render={({ field, fieldState }) => (
          <>
            <Select
              className="lined-field text-base"
              value={String(field.value ?? "")}
              options={options}
              onChange={(value) => field.onChange(read(value))}
              disabled={disabled}
            />
            <FieldProblem words={fieldState.error?.message} />
          </>
        )}
      />
    </label>
  );
}

/** Teams to choose from. */
export function teamOptions(teams: readonly { id: number; name: string }[]): Option[] {
  return teams.map(({ id, name }) => [String(id), name] as const);
}
