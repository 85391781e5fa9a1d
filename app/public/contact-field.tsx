import { Field } from "../ui/field";
import { t } from "../words/public";

interface Props {
  name: string;
  label: string;
  kind: "email" | "text" | "long_text" | "number" | "date" | "choice" | "yes_no" | "files";
  /** What was filled in before it came back. */
  value: string;
  problem: string | undefined;
  required?: boolean;
  options?: string[];
  autoComplete?: string;
}

const TYPES = { email: "email", text: "text", number: "number", date: "date" } as const;

/** One field of a form that works without script: the browser's own controls, with our label and what is wrong. */
export function ContactField({
  name,
  label,
  kind,
  value,
  problem,
  required = false,
  options = [],
  autoComplete,
}: Props) {
  const shown = required ? label : t("labelNotNeeded", { label });
  return (
    <Field label={shown} problem={problem}>
      {(attributes) => {
        const shared = { ...attributes, name, "aria-required": required };
        if (kind === "long_text")
          return (
            <textarea
              {...shared}
              rows={7}
              defaultValue={value}
              className="boxed-field font-serif text-letter"
            />
          );
        if (kind === "choice" || kind === "yes_no") {
          const words = kind === "yes_no" ? [["yes", t("yes")] as const, ["no", t("no")] as const] : null;
          return (
            <select {...shared} defaultValue={value}>
              <option value="">{t("choose")}</option>
              {(words ?? options.map((one) => [one, one] as const)).map(([one, said]) => (
                <option key={one} value={one}>
                  {said}
                </option>
              ))}
            </select>
          );
        }
        if (kind === "files") return <input {...shared} type="file" multiple />;
        return (
          <input {...shared} type={TYPES[kind]} defaultValue={value} autoComplete={autoComplete} step="any" />
        );
      }}
    </Field>
  );
}
