import { useState } from "react";
import { blankSchema, type Blank } from "#core/tokens/blanks";
import { Checkbox } from "../../ui/checkbox";
import { Select } from "../../ui/select";
import { DateField } from "../../ui/date-field";

interface Props {
  name: string;
  blank: Blank;
  used: boolean;
  onChange: (blank: Blank) => void;
  onRemove: () => void;
}

const kinds: [Blank["kind"], string][] = [
  ["text", "words"],
  ["long_text", "several lines"],
  ["number", "number"],
  ["money", "money"],
  ["date", "date"],
  ["time", "time"],
  ["choice", "choice"],
  ["yes_no", "yes or no"],
];

/** Everything about one blank. What cannot be kept yet says why, and the blank stays as it was. */
export function BlankForm({ name, blank, used, onChange, onRemove }: Props) {
  const [draft, setDraft] = useState<Record<string, unknown>>({ ...blank });
  const [problem, setProblem] = useState<string | null>(null);
  const [options, setOptions] = useState(blank.kind === "choice" ? blank.options.join("\n") : "");

  const set = (changes: Record<string, unknown>) => {
    const next: Record<string, unknown> = Object.fromEntries(
      Object.entries({ ...draft, ...changes }).filter(([, value]) => value !== undefined && value !== ""),
    );
    setDraft(next);
    const parsed = blankSchema.safeParse(next);
    if (parsed.success) {
      setProblem(null);
      onChange(parsed.data);
    } else {
      const issue = parsed.error.issues[0];
      setProblem(issue ? `${issue.path.join(" ")}: ${issue.message}` : "This cannot be kept");
    }
  };
  const setKind = (kind: string) => {
    const { label, hint, required, printed } = draft;
    const common = { label, hint, required, printed, kind };
    const list = lines(options);
    if (kind === "choice" && list.length === 0) setOptions("yes\nno");
    setDraft({});
    set({
      ...Object.fromEntries(Object.keys(draft).map((key) => [key, undefined])),
      ...common,
      ...(kind === "choice" ? { options: list.length > 0 ? list : ["yes", "no"] } : {}),
    });
  };
  const text = (key: string) => {
    const value = draft[key];
    return typeof value === "string" || typeof value === "number" ? String(value) : "";
  };
  const field = (
    label: string,
    key: string,
    props: { type?: string; placeholder?: string; list?: string } = {},
  ) => (
    <label className="grid grid-cols-[7.5rem_1fr] items-baseline gap-2">
      {label}
      <input
        className="lined-field"
        type={props.type ?? "text"}
        step="any"
        placeholder={props.placeholder}
        list={props.list}
        value={text(key)}
        onChange={(event) => {
          const { value } = event.target;
          set({ [key]: props.type === "number" ? (value === "" ? undefined : Number(value)) : value });
        }}
      />
    </label>
  );
  const day = (label: string, key: string) => (
    <div className="grid grid-cols-[7.5rem_1fr] items-baseline gap-2">
      {label}
      <DateField label={label} value={text(key)} onChange={(value) => set({ [key]: value })} />
    </div>
  );
  const check = (label: string, key: string, usual: boolean) => (
    <label className="flex items-center gap-2">
      <Checkbox
        checked={(draft[key] as boolean | undefined) ?? usual}
        onChange={(on) => set({ [key]: on })}
      />
      {label}
    </label>
  );
  const kind = draft.kind as Blank["kind"];
  return (
    <fieldset className="flex flex-col gap-2.5 border-l-[3px] border-ink pl-4">
      <legend className="sr-only">The blank {blank.label ?? name}</legend>
      {field("Asks", "label")}
      <label className="grid grid-cols-[7.5rem_1fr] items-baseline gap-2">
        Kind
        <Select value={kind} options={kinds} onChange={setKind} />
      </label>
      {kind === "choice" && (
        <>
          <label className="grid grid-cols-[7.5rem_1fr] gap-2">
            Choices, a line each
            <textarea
              className="boxed-field"
              rows={Math.min(8, Math.max(3, lines(options).length + 1))}
              value={options}
              onChange={(event) => {
                setOptions(event.target.value);
                set({ options: lines(event.target.value) });
              }}
            />
          </label>
          {check("several may be chosen", "many", false)}
          {draft.many === true && (
            <>
              {field("Joined by", "join", {
                placeholder: "“, ” and “ and ” before the last",
                list: "usual-joins",
              })}
              <datalist id="usual-joins">
                {[", ", "; ", " and ", " or ", " / "].map((join) => (
                  <option key={join} value={join} />
                ))}
              </datalist>
            </>
          )}
        </>
      )}
      {(kind === "number" || kind === "money") && (
        <>
          {field("At least", "min", { type: "number" })}
          {field("At most", "max", { type: "number" })}
        </>
      )}
      {kind === "number" && field("In steps of", "step", { type: "number" })}
      {kind === "money" && field("Currency", "currency")}
      {kind === "date" && (
        <>
          {day("From", "min")}
          {day("Until", "max")}
        </>
      )}
      {(kind === "text" || kind === "long_text") && field("Letters at most", "max", { type: "number" })}
      {field("Hint", "hint")}
      {field("Begins with", "default", { placeholder: "words, or a token as in {$booking.from}" })}
      {check("must be filled", "required", true)}
      {check("printed in the letter", "printed", true)}
      {draft.printed === false && <p className="text-soft">It only steers passages.</p>}
      {problem && (
        <p role="alert" className="text-stop">
          {problem}
        </p>
      )}
      <p className="flex items-baseline gap-4">
        <code className="text-soft">{`{$blank.${name}}`}</code>
        <button type="button" className="quiet-link ml-auto" disabled={used} onClick={onRemove}>
          {used ? "in use, in the words or a condition" : "drop the blank"}
        </button>
      </p>
    </fieldset>
  );
}

function lines(text: string): string[] {
  return [
    ...new Set(
      text
        .split("\n")
        .map((line) => line.trim())
        .filter(Boolean),
    ),
  ];
}
