import type { Detail } from "#core/tokens/context";
import type { FactType } from "#core/forms/house";
import { sayDay } from "../ui/say-day";
import { DateField } from "../ui/date-field";
import { t } from "../words/setup";

/** A fact's value in words. */
export function factWords(value: Detail, type: FactType): string {
  if (value === null) return "";
  if (type === "date" && typeof value === "string") return sayDay(value);
  if (Array.isArray(value)) return value.join(", ");
  if (typeof value === "object") {
    return new Intl.NumberFormat("en-GB", { style: "currency", currency: value.currency }).format(
      value.amount,
    );
  }
  return String(value);
}

/** The value as a form has it. */
export interface FactDraft {
  text: string;
  currency: string;
}

export function draftOf(value: Detail): FactDraft {
  if (value !== null && typeof value === "object" && !Array.isArray(value))
    return { text: String(value.amount), currency: value.currency };
  return { text: value === null ? "" : String(value), currency: "EUR" };
}

/** The value as the server reads it. */
export function valueOfDraft(type: FactType, { text, currency }: FactDraft): unknown {
  return type === "money" ? { amount: text.trim() === "" ? undefined : text, currency } : text;
}

/** The field for a fact's value, by its kind. */
export function FactValueField({
  type,
  draft,
  onChange,
}: {
  type: FactType;
  draft: FactDraft;
  onChange: (draft: FactDraft) => void;
}) {
  const set = (text: string) => onChange({ ...draft, text });
  if (type === "long_text")
    return (
      <textarea
        aria-label={t("value")}
        className="boxed-field"
        rows={3}
        maxLength={5000}
        value={draft.text}
        onChange={(event) => set(event.target.value)}
      />
    );
  if (type === "date") return <DateField label={t("value")} value={draft.text} onChange={set} />;
  return (
    <span className="flex items-baseline gap-2">
      <input
        aria-label={t("value")}
        className="lined-field grow"
        type={type === "money" || type === "number" ? "number" : type === "link" ? "url" : "text"}
        step="any"
        value={draft.text}
        onChange={(event) => set(event.target.value)}
      />
      {type === "money" && (
        <input
          aria-label={t("currency")}
          className="lined-field w-14"
          maxLength={3}
          value={draft.currency}
          onChange={(event) => onChange({ ...draft, currency: event.target.value.toUpperCase() })}
        />
      )}
    </span>
  );
}
