import type { TokenType } from "#core/tokens/catalogue";
import { Checkbox } from "../../ui/checkbox";
import { Select } from "../../ui/select";
import { t } from "../../words/writing";

interface Props {
  type: TokenType;
  fn: string | null;
  options: Record<string, string>;
  /** Only tokens may be missing, and so have a fallback. */
  isToken: boolean;
  onChange: (fn: string | null, options: Record<string, string>) => void;
}

/** A way of writing a value: its function and options in MessageFormat 2. */
interface Way {
  words: string;
  fn: string | null;
  options: Record<string, string>;
}

const asIs = (): Way => ({ words: t("asUsual"), fn: null, options: {} });
const dates = (): Way[] => [
  { words: t("dateInWords"), fn: "date", options: { length: "long" } },
  { words: t("dateWithWeekday"), fn: "date", options: { length: "long", fields: "month-day-weekday" } },
  { words: t("shortDate"), fn: "date", options: { length: "short" } },
];
const times = (): Way[] => [{ words: t("time"), fn: "time", options: { precision: "minute" } }];
const numbers = (): Way[] => [
  { words: t("wholeNumber"), fn: "integer", options: {} },
  { words: t("number"), fn: "number", options: {} },
  {
    words: t("twoDecimals"),
    fn: "number",
    options: { minimumFractionDigits: "2", maximumFractionDigits: "2" },
  },
  { words: t("perCent"), fn: "percent", options: {} },
];

const ways = (): Partial<Record<TokenType, Way[]>> => ({
  datetime: [asIs(), ...dates(), ...times()],
  date: [asIs(), ...dates()],
  time: [asIs()],
  integer: [asIs(), ...numbers()],
  number: [asIs(), ...numbers()],
  money: [
    asIs(),
    { words: t("withoutCents"), fn: "currency", options: { fractionDigits: "0" } },
    { words: t("withTheCode"), fn: "currency", options: { currencyDisplay: "code" } },
  ],
});

const letterCases = ["upper", "lower", "title", "sentence"];

/** Format, fallback and capitals of a value, in a line. */
export function FormatFields({ type, fn, options, isToken, onChange }: Props) {
  const { fallback = "", case: letterCase = "", timeZone = "", ...shape } = options;
  const rest: Record<string, string> = {
    ...(fallback ? { fallback } : {}),
    ...(letterCase ? { case: letterCase } : {}),
    ...(timeZone ? { timeZone } : {}),
  };
  const offered = ways()[type] ?? [];
  const same = (way: Way) =>
    (way.fn ?? "text") === (fn ?? "text") &&
    JSON.stringify(sorted(way.options)) === JSON.stringify(sorted(shape));
  const current = offered.findIndex(same);
  // Options without a function need one to stand at: text for words, the usual one for the rest.
  const functionFor = (next: Record<string, string>) =>
    fn ?? (Object.keys(next).length > 0 ? usual(type) : null);
  const without = (key: string) =>
    Object.fromEntries(Object.entries({ ...shape, ...rest }).filter(([name]) => name !== key));
  const set = (key: string, value: string) => {
    const next: Record<string, string> = value === "" ? without(key) : { ...without(key), [key]: value };
    onChange(functionFor(next), next);
  };
  return (
    <span className="flex flex-wrap items-center gap-x-4 gap-y-1">
      {offered.length > 1 && (
        <Select
          label={t("format")}
          value={current < 0 ? "" : String(current)}
          placeholder={t("itsOwnFormat")}
          options={offered.map((way, index) => [String(index), way.words] as const)}
          onChange={(index) => {
            const way = offered[Number(index)];
            if (way)
              onChange(way.fn ?? (Object.keys(rest).length > 0 ? usual(type) : null), {
                ...way.options,
                ...rest,
              });
          }}
        />
      )}
      {(type === "text" || type === "long_text") && (
        <Select
          label={t("capitals")}
          value={letterCase}
          options={[
            ["", t("capitalsAsTheyAre")],
            ...letterCases.map((one) => [one, CAPITALS()[one] ?? one] as const),
          ]}
          onChange={(one) => set("case", one)}
        />
      )}
      {type === "datetime" && (
        <label className="flex items-center gap-1.5">
          <Checkbox
            checked={timeZone === "customer"}
            onChange={(on) => set("timeZone", on ? "customer" : "")}
          />
          {t("inTheCustomersZone")}
        </label>
      )}
      {isToken && (
        <label className="flex items-center gap-2">
          {t("ifMissing")}
          <input
            className="lined-field w-28"
            value={fallback}
            maxLength={200}
            placeholder={t("nothing")}
            onChange={(event) => set("fallback", event.target.value)}
          />
        </label>
      )}
    </span>
  );
}

function usual(type: TokenType): string {
  switch (type) {
    case "datetime":
    case "date":
    case "time":
      return type;
    case "money":
      return "currency";
    case "integer":
    case "number":
      return type;
    default:
      return "text";
  }
}

function sorted(options: Record<string, string>): [string, string][] {
  return Object.entries(options).sort(([a], [b]) => (a < b ? -1 : 1));
}

const CAPITALS = (): Record<string, string> => ({
  upper: t("allCapitals"),
  lower: t("noCapitals"),
  title: t("eachWord"),
  sentence: t("firstLetter"),
});
