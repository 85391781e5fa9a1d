import { useState } from "react";
import { blankLabel, joinChoices, unfitness, type Blank, type BlankValue } from "#core/tokens/blanks";
import { YES_NO, yesOrNo } from "#core/words/named";
import { Hint } from "../../ui/hint";
import { useStackParts } from "./stack-parts";
import { said, sameWords, Select, type Option } from "../../ui/select";

interface Props {
  name: string;
  blank: Blank;
  /** What was filled in; null for nothing. */
  value: BlankValue;
  /** Shown while nothing is filled in: what stands for it then, or what is asked. */
  placeholder: string;
  /** The letter's language, in which several choices are joined. */
  language: string;
  /** Called with each new value; null empties the blank. `goesOn` says that it is still being typed. */
  onFill: (value: BlankValue, goesOn?: boolean) => void;
}

/** Where a blank is filled, by its kind. */
export function BlankField({ name, blank, ...props }: Props) {
  const label = blankLabel(name, blank);
  const problem = props.value === null ? null : unfitness(blank, props.value);
  const field = (
    <span data-blank-field={name}>
      <Field {...props} blank={blank} label={label} problem={problem} />
    </span>
  );
  return blank.hint ? <Hint words={blank.hint}>{field}</Hint> : field;
}

interface FieldProps extends Omit<Props, "name"> {
  label: string;
  /** What is wrong with the value. */
  problem: string | null;
}

function Field(props: FieldProps) {
  const { blank, label, placeholder, value, language, onFill } = props;
  const { DateEntry, ManyPicker } = useStackParts();
  switch (blank.kind) {
    case "choice": {
      if (!blank.many)
        return (
          <OneOf {...props} options={sameWords(blank.options)} chosen={written(value)} onChoose={onFill} />
        );
      const chosen = Array.isArray(value) ? value : [];
      return (
        <ManyPicker
          label={label}
          value={chosen}
          options={blank.options}
          words={joinChoices(chosen, blank, language)}
          placeholder={placeholder}
          className="blank-field"
          onChange={(list) => onFill(list.length > 0 ? list : null)}
        />
      );
    }
    case "yes_no":
      return (
        <OneOf
          {...props}
          options={said(YES_NO, yesOrNo)}
          chosen={typeof value === "boolean" ? (value ? "yes" : "no") : ""}
          onChoose={(word) => onFill(word === null ? null : word === "yes")}
        />
      );
    case "date":
      return (
        <DateEntry
          label={label}
          value={written(value)}
          min={blank.min}
          max={blank.max}
          placeholder={placeholder}
          className="blank-field"
          required={blank.required}
          onChange={(day) => onFill(day === "" ? null : day)}
        />
      );
    default:
      return <Typed {...props} />;
  }
}

/** One of few, or none yet. */
function OneOf({
  label,
  placeholder,
  blank,
  options,
  chosen,
  onChoose,
}: FieldProps & { options: Option[]; chosen: string; onChoose: (word: string | null) => void }) {
  return (
    <Select
      label={label}
      value={chosen}
      options={[["", placeholder], ...options]}
      className="blank-field"
      aria-required={blank.required}
      onChange={(word) => onChoose(word === "" ? null : word)}
    />
  );
}

const INPUT_TYPES: Partial<Record<Blank["kind"], string>> = {
  time: "time",
  number: "number",
  money: "number",
};

function Typed({ blank, label, placeholder, value, problem, onFill }: FieldProps) {
  // What is being typed stays as it is typed: “1.” must not become “1” under the hand.
  const [typed, setTyped] = useState<string | null>(null);
  const shown = typed !== null && same(read(blank, typed), value) ? typed : written(value);
  const shared = {
    className: "blank-field",
    "aria-label": label,
    "aria-required": blank.required,
    "aria-invalid": problem !== null || undefined,
    "aria-description": problem ?? undefined,
    placeholder,
    value: shown,
    spellCheck: true,
    onChange: (event: { target: { value: string } }) => {
      onFill(read(blank, event.target.value), typed !== null);
      setTyped(event.target.value);
    },
    onBlur: () => setTyped(null),
  };
  if (blank.kind === "long_text") return <textarea {...shared} rows={1} />;
  const limits =
    blank.kind === "number" || blank.kind === "money"
      ? {
          min: blank.min,
          max: blank.max,
          step: blank.kind === "money" ? 0.01 : (blank.step ?? "any"),
        }
      : {};
  return (
    <input
      {...shared}
      {...limits}
      type={INPUT_TYPES[blank.kind] ?? "text"}
      // As wide as its words: for browsers without `field-sizing`.
      size={Math.max(4, Math.min(40, (shown || placeholder).length + 1))}
    />
  );
}

function read(blank: Blank, text: string): BlankValue {
  if (text.trim() === "") return null;
  return blank.kind === "number" || blank.kind === "money" ? Number(text) : text;
}

function same(one: BlankValue, other: BlankValue): boolean {
  return written(one) === written(other);
}

function written(value: BlankValue): string {
  if (value === null) return "";
  if (typeof value === "object" && "amount" in value) return String(value.amount);
  return Array.isArray(value) ? value.join(", ") : String(value);
}
