import { useId, type ReactNode } from "react";
import { MAX_PATTERN_LENGTH, type Test } from "#core/conditions/condition";
import type { TokenType } from "#core/tokens/catalogue";
import { YES_NO, yesOrNo } from "#core/words/named";
import { Checkbox } from "../../ui/checkbox";
import { said, Select, type Option } from "../../ui/select";
import { DateField } from "../../ui/date-field";
import { usePatternEngine } from "../../ui/pattern-engine";
import { t } from "../../words/writing";

interface Props {
  test: Test;
  type: TokenType | "choice" | "choices";
  options: readonly Option[] | null;
  /** What chooses it, where it is neither written nor one of few. */
  field?: ((value: string, onChange: (value: string) => void) => ReactNode) | undefined;
  onChange: (to: NonNullable<Test["to"]>) => void;
}

/** What a test compares with: by the kind of value, and as many as its operator takes. */
export function ConditionValue({ test, type, options, field, onChange }: Props) {
  const { is, to } = test;
  if (is === "present" || is === "missing") return null;
  if (is === "one_of" && options) {
    const chosen = (Array.isArray(to) ? to : []).map(String);
    return (
      <span className="flex flex-wrap gap-x-3">
        {options.map(([option, words]) => (
          <label key={option} className="flex items-center gap-1.5">
            <Checkbox
              checked={chosen.includes(option)}
              onChange={(on) => {
                const next = on ? [...chosen, option] : chosen.filter((one) => one !== option);
                if (next.length > 0) onChange(next);
              }}
            />
            {words}
          </label>
        ))}
      </span>
    );
  }
  if (is === "one_of") {
    return (
      <input
        aria-label={t("oneOfTheseBetweenCommas")}
        className="lined-field w-44"
        placeholder={t("thisThat")}
        defaultValue={(Array.isArray(to) ? to : []).join(", ")}
        onChange={(event) => {
          const list = event.target.value
            .split(",")
            .map((one) => one.trim())
            .filter(Boolean);
          if (list.length > 0) onChange(list);
        }}
      />
    );
  }
  if (is === "between") {
    const [low = "", high = ""] = Array.isArray(to) ? to : [];
    return (
      <>
        <Single
          label={t("fromValue")}
          type={type}
          value={low}
          onChange={(value) => onChange([value, high])}
        />
        {t("and")}
        <Single label={t("toValue")} type={type} value={high} onChange={(value) => onChange([low, value])} />
      </>
    );
  }
  const value = Array.isArray(to) ? (to[0] ?? "") : (to ?? "");
  if (field) return field(String(value), onChange);
  if (options) {
    return (
      <Select
        label={t("value")}
        value={String(value)}
        placeholder={t("valueNotOffered", { value: String(value) })}
        options={options}
        onChange={onChange}
      />
    );
  }
  if (type === "yes_no") {
    return (
      <Select
        label={t("value")}
        value={value === true || value === "yes" ? "yes" : "no"}
        options={said(YES_NO, yesOrNo)}
        onChange={(answer) => onChange(answer === "yes")}
      />
    );
  }
  if (is === "matches")
    return <Pattern source={String(value)} ignoreCase={test.ignore_case ?? false} onChange={onChange} />;
  return <Single label={t("value")} type={type} value={value} onChange={onChange} />;
}

function Pattern({
  source,
  ignoreCase,
  onChange,
}: {
  source: string;
  ignoreCase: boolean;
  onChange: (source: string) => void;
}) {
  const id = useId();
  const { patterns, isReady } = usePatternEngine(true);
  const isUsable = !isReady || patterns(source, ignoreCase) !== null;
  const problem = isUsable ? null : (patterns.problem?.(source) ?? t("itCannotBeUsed"));
  return (
    <>
      <input
        aria-label={t("pattern")}
        aria-invalid={!isUsable}
        aria-describedby={problem === null ? undefined : id}
        className="lined-field w-44 font-mono"
        maxLength={MAX_PATTERN_LENGTH}
        spellCheck={false}
        value={source}
        onChange={(event) => onChange(event.target.value)}
      />
      {problem !== null && (
        <span id={id} className="text-stop">
          {t("thisPatternCannotBeReadProblem", { problem })}
        </span>
      )}
    </>
  );
}

const inputs: Partial<Record<TokenType | "choice" | "choices", string>> = {
  integer: "number",
  number: "number",
  money: "number",
  time: "time",
};

function Single({
  label,
  type,
  value,
  onChange,
}: {
  label: string;
  type: Props["type"];
  value: string | number | boolean;
  onChange: (value: string | number) => void;
}) {
  if (type === "date") return <DateField label={label} value={String(value)} onChange={onChange} />;
  const kind = inputs[type] ?? "text";
  return (
    <input
      aria-label={label}
      className="lined-field w-36"
      type={kind}
      step="any"
      placeholder={type === "datetime" ? t("nowOr20270301t1200") : undefined}
      value={String(value)}
      onChange={(event) =>
        onChange(
          kind === "number" && event.target.value !== "" ? Number(event.target.value) : event.target.value,
        )
      }
    />
  );
}
