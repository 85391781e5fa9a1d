import * as z from "zod/mini";
import { blankSchema, type Blank } from "../tokens/blanks";

/** A blank's definition as a form has it: numbers and days as they are typed, choices a line each. */
const fields = z.object({
  kind: z.enum(["text", "long_text", "number", "money", "date", "time", "choice", "yes_no"]),
  label: z.string(),
  hint: z.string(),
  default: z.string(),
  required: z.boolean(),
  printed: z.boolean(),
  min: z.string(),
  max: z.string(),
  step: z.string(),
  currency: z.string(),
  options: z.string(),
  many: z.boolean(),
  join: z.string(),
});
export type BlankFields = z.infer<typeof fields>;

/** What each kind has beside what all have. */
const own: Record<Blank["kind"], (keyof BlankFields)[]> = {
  text: ["max"],
  long_text: ["max"],
  number: ["min", "max", "step"],
  money: ["min", "max", "currency"],
  date: ["min", "max"],
  time: [],
  choice: ["options", "many", "join"],
  yes_no: [],
};

/** Reads a blank's definition from its form; what cannot be kept is refused at its field. */
export const blankFormSchema = z.pipe(
  fields,
  z.transform((form, context): Blank => {
    const read = blankSchema.safeParse(definitionOf(form));
    if (read.success) return read.data;
    for (const { path, message } of read.error.issues)
      context.issues.push({ code: "custom", path: path.slice(0, 1), message, input: form });
    return z.NEVER;
  }),
);

/** The form of a blank as it is. */
export function blankFields(blank: Blank): BlankFields {
  const known: Partial<Record<keyof BlankFields, unknown>> = blank;
  const of = (key: keyof BlankFields) => {
    const value = known[key];
    return typeof value === "string" || typeof value === "number" ? String(value) : "";
  };
  return {
    kind: blank.kind,
    label: blank.label ?? "",
    hint: blank.hint ?? "",
    default: blank.default ?? "",
    required: blank.required,
    printed: blank.printed,
    min: of("min"),
    max: of("max"),
    step: of("step"),
    currency: of("currency"),
    options: blank.kind === "choice" ? blank.options.join("\n") : "",
    many: blank.kind === "choice" && blank.many,
    join: of("join"),
  };
}

/** The same form for another kind: what only the kind before had is forgotten, and a choice begins with two. */
export function asKind(form: BlankFields, kind: Blank["kind"]): BlankFields {
  const options = form.options.trim() === "" && kind === "choice" ? "yes\nno" : form.options;
  return {
    ...form,
    kind,
    default: "",
    min: "",
    max: "",
    step: "",
    currency: kind === "money" ? "EUR" : "",
    options,
    many: false,
    join: "",
  };
}

/** The choices of a form: a line each, once each. */
export function choicesOf(text: string): string[] {
  const lines = text.split("\n").map((line) => line.trim());
  return [...new Set(lines.filter(Boolean))];
}

function definitionOf(form: BlankFields): Record<string, unknown> {
  const { kind, required, printed } = form;
  const given: Record<string, unknown> = { kind, required, printed };
  for (const key of ["label", "hint", "default", ...own[kind]] as const) {
    const value = form[key];
    if (value === "") continue;
    if (key === "options") given[key] = choicesOf(form.options);
    else if (kind !== "date" && (key === "min" || key === "max" || key === "step"))
      given[key] = Number(value);
    else if (key !== "many" || form.many) given[key] = value;
  }
  if (kind === "choice" && form.options === "") given.options = [];
  return given;
}
