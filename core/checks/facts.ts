import type { OwnToken } from "../tokens/catalogue";
import { formatValue } from "../tokens/format";
import { valueOf } from "../tokens/values";

const SHORTEST_FACT = 4;

/** How a fact's value would look when it is typed out. Bare numbers are left alone: they mean too many things. */
export function factWords({ type, example }: OwnToken, language: string): string[] {
  if (typeof example === "string" && type !== "date") return example.length >= SHORTEST_FACT ? [example] : [];
  const value = valueOf(example, type, "");
  if (value.kind === "missing" || (type !== "money" && type !== "date")) return [];
  const style = { language, timeZone: "UTC" };
  const formatted = formatValue(value, { name: "", fn: null, options: {} }, style);
  const usual = formatted.kind === "text" ? [formatted.text] : [];
  const { value: raw } = value;
  if (typeof raw !== "object" || !("currency" in raw)) return usual;
  const short = new Intl.NumberFormat(language, {
    style: "currency",
    currency: raw.currency,
    maximumFractionDigits: 0,
  });
  const whole = Number.isInteger(raw.amount)
    ? [short.format(raw.amount), `${raw.amount} ${raw.currency}`]
    : [];
  return [...usual, ...whole];
}
