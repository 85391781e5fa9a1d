import type { TokenType } from "#core/tokens/catalogue";

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

const asIs: Way = { words: "as usual", fn: null, options: {} };
const dates: Way[] = [
  { words: "date in words", fn: "date", options: { length: "long" } },
  { words: "date with weekday", fn: "date", options: { length: "long", fields: "month-day-weekday" } },
  { words: "short date", fn: "date", options: { length: "short" } },
];
const times: Way[] = [{ words: "time", fn: "time", options: { precision: "minute" } }];
const numbers: Way[] = [
  { words: "whole number", fn: "integer", options: {} },
  { words: "number", fn: "number", options: {} },
  {
    words: "two decimals",
    fn: "number",
    options: { minimumFractionDigits: "2", maximumFractionDigits: "2" },
  },
  { words: "per cent", fn: "percent", options: {} },
];

const ways: Partial<Record<TokenType, Way[]>> = {
  datetime: [asIs, ...dates, ...times],
  date: [asIs, ...dates],
  time: [asIs],
  integer: [asIs, ...numbers],
  number: [asIs, ...numbers],
  money: [
    asIs,
    { words: "without cents", fn: "currency", options: { fractionDigits: "0" } },
    { words: "with the code", fn: "currency", options: { currencyDisplay: "code" } },
  ],
};

const letterCases = ["upper", "lower", "title", "sentence"];

/** Format, fallback and capitals of a value, in a line. */
export function FormatFields({ type, fn, options, isToken, onChange }: Props) {
  const { fallback = "", case: letterCase = "", timeZone = "", ...shape } = options;
  const rest: Record<string, string> = {
    ...(fallback ? { fallback } : {}),
    ...(letterCase ? { case: letterCase } : {}),
    ...(timeZone ? { timeZone } : {}),
  };
  const offered = ways[type] ?? [];
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
        <select
          aria-label="Format"
          className="lined-field bg-sheet"
          value={current < 0 ? "own" : String(current)}
          onChange={(event) => {
            const way = offered[Number(event.target.value)];
            if (way)
              onChange(way.fn ?? (Object.keys(rest).length > 0 ? usual(type) : null), {
                ...way.options,
                ...rest,
              });
          }}
        >
          {current < 0 && <option value="own">its own format</option>}
          {offered.map((way, index) => (
            <option key={way.words} value={index}>
              {way.words}
            </option>
          ))}
        </select>
      )}
      {(type === "text" || type === "long_text") && (
        <select
          aria-label="Capitals"
          className="lined-field bg-sheet"
          value={letterCase}
          onChange={(event) => set("case", event.target.value)}
        >
          <option value="">capitals as they are</option>
          {letterCases.map((one) => (
            <option key={one} value={one}>
              {one === "upper"
                ? "ALL CAPITALS"
                : one === "lower"
                  ? "no capitals"
                  : one === "title"
                    ? "Each Word"
                    : "First letter"}
            </option>
          ))}
        </select>
      )}
      {type === "datetime" && (
        <label className="flex items-center gap-1.5">
          <input
            type="checkbox"
            checked={timeZone === "customer"}
            onChange={(event) => set("timeZone", event.target.checked ? "customer" : "")}
          />
          in the customer’s zone
        </label>
      )}
      {isToken && (
        <label className="flex items-center gap-2">
          If missing
          <input
            className="lined-field w-28"
            value={fallback}
            maxLength={200}
            placeholder="nothing"
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
