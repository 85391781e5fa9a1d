import { zodResolver } from "@hookform/resolvers/zod";
import {
  useForm,
  type DefaultValues,
  type FieldPath,
  type FieldValues,
  type UseFormRegisterReturn,
  type UseFormReturn,
} from "react-hook-form";
import type { InputHTMLAttributes } from "react";
import type * as z from "zod/mini";
import type { Outcome } from "./act";

/** A form, with what its schema makes of it. */
export type FormOf<Input extends FieldValues, Output = Input> = UseFormReturn<Input, unknown, Output>;

/**
 * A form by the schema that its action reads it with too. What is wrong is said beside its field once the field was left,
 * or when the form is sent: the first of them gets the focus then. Nothing that was filled in is lost.
 */
export function useFormOf<Input extends FieldValues, Output>(
  schema: z.ZodMiniType<Output, Input>,
  defaultValues: DefaultValues<NoInfer<Input>>,
): FormOf<Input, Output> {
  return useForm<Input, unknown, Output>({
    resolver: zodResolver(schema),
    defaultValues,
    mode: "onTouched",
  });
}

/** Shows what the server refused beside the field that it is about, or under the form. @returns whether it was done */
export function taken<Input extends FieldValues, Output>(
  form: FormOf<Input, Output>,
  outcome: Outcome<unknown>,
): boolean {
  if (outcome.ok) return true;
  const { at, problem } = outcome;
  const field = at?.split(".")[0] ?? "";
  if (field in form.getValues())
    form.setError(field as FieldPath<Input>, { message: problem }, { shouldFocus: true });
  else form.setError("root", { message: problem });
  return false;
}

/** What is wrong with a form as a whole. */
export function FormProblem({ words }: { words: string | undefined }) {
  return words === undefined ? null : (
    <p role="alert" className="text-stop">
      {words}
    </p>
  );
}

/** What is wrong with a field, beside it. */
export function FieldProblem({ words }: { words: string | undefined }) {
  return words === undefined ? null : (
    <span role="alert" className="text-sm text-stop">
      {words}
    </span>
  );
}

interface LineProps extends InputHTMLAttributes<HTMLInputElement> {
  /** The form’s own registration of the field. */
  field: UseFormRegisterReturn;
  problem: string | undefined;
}

/** A line of words in a form, with what is wrong with it beneath. */
export function LineInput({ field, problem, className = "", ...attributes }: LineProps) {
  return (
    <>
      <input
        {...attributes}
        {...field}
        aria-invalid={problem !== undefined}
        className={`lined-field ${className}`}
      />
      <FieldProblem words={problem} />
    </>
  );
}
