import type { Detail } from "#core/tokens/context";
import type { FieldType } from "#core/tokens/fields";
import { YES_NO, yesOrNo } from "#core/words/named";
import { DateField } from "../ui/date-field";
import { said, sameWords, Select } from "../ui/select";
import { t } from "../words/ui";

/** A value as a form has it. */
export interface FieldDraft {
  text: string;
  /** Of money: ISO 4217. */
  currency: string;
}

/** A value that is kept, as a form has it. */
export function draftOfValue(value: Detail): FieldDraft {
  if (value === null) return { text: "", currency: "EUR" };
  if (typeof value === "boolean") return { text: value ? "yes" : "no", currency: "EUR" };
  if (typeof value === "object" && !Array.isArray(value))
    return { text: String(value.amount), currency: value.currency };
  return { text: String(value), currency: "EUR" };
}

/** What a form has, as the server reads it. */
export function givenOf(type: FieldType, { text, currency }: FieldDraft): unknown {
  return type === "money" ? { amount: text, currency } : text;
}

interface Props {
  label: string;
  type: FieldType;
  options: string[];
  draft: FieldDraft;
  onChange: (draft: FieldDraft) => void;
}

/** The field for a value, by its kind. */
export function FieldInput({ label, type, options, draft, onChange }: Props) {
  const set = (text: string) => onChange({ ...draft, text });
  switch (type) {
    case "long_text":
      return (
        <textarea
          aria-label={label}
          rows={3}
          maxLength={5000}
          value={draft.text}
          onChange={(event) => set(event.target.value)}
          className="boxed-field w-full"
        />
      );
    case "date":
      return <DateField label={label} value={draft.text} onChange={set} />;
    case "choice":
      // What is chosen from no more stays until something else is.
      return (
        <Select
          label={label}
          value={draft.text}
          options={[
            ["", t("notChosen")],
            ...sameWords(
              draft.text === "" || options.includes(draft.text) ? options : [...options, draft.text],
            ),
          ]}
          onChange={set}
        />
      );
    case "yes_no":
      return (
        <Select
          label={label}
          value={draft.text}
          options={[["", t("notChosen")], ...said(YES_NO, yesOrNo)]}
          onChange={set}
        />
      );
    default:
      return (
        <span className="flex items-baseline gap-2">
          <input
            aria-label={label}
            inputMode={type === "money" || type === "number" ? "decimal" : type === "link" ? "url" : "text"}
            maxLength={2000}
            value={draft.text}
            onChange={(event) => set(event.target.value)}
            className="lined-field grow"
          />
          {type === "money" && (
            <input
              aria-label={t("currencyOf", { label })}
              maxLength={3}
              value={draft.currency}
              onChange={(event) => onChange({ ...draft, currency: event.target.value.toUpperCase() })}
              className="lined-field w-14"
            />
          )}
        </span>
      );
  }
}
