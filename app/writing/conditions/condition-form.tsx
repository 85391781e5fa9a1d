import type { Condition, Operator, Test } from "#core/conditions/condition";
import { blankLabel, type Blanks } from "#core/tokens/blanks";
import type { Token, TokenType } from "#core/tokens/catalogue";
import { replyChannels } from "#core/words/named";
import type { ReactNode } from "react";
import { ConditionValue } from "./condition-value";
import { Checkbox } from "../../ui/checkbox";
import { Picker, type PickerGroup } from "../../ui/picker";
import { sameWords, Select, type Option } from "../../ui/select";
import { firstTest } from "./new-passage";
import { t } from "../../words/writing";

/** What conditions may ask for. */
export interface Askable {
  tokens: ReadonlyMap<string, Token>;
  blanks: Blanks;
  /** What is known of a message besides, by its name, with what it is called. */
  besides?: readonly MessagePart[];
}

/** How the value of a part is chosen where it is not written. */
interface PartChoice {
  /** Of few, with what each is called. */
  options?: readonly Option[];
  field?: (value: string, onChange: (value: string) => void) => ReactNode;
}

export type MessagePart = readonly [name: string, label: string, type: TokenType, choice?: PartChoice];

interface Props extends Askable {
  condition: Condition;
  onChange: (condition: Condition) => void;
  /** Takes this part out; null for the whole. */
  onRemove: (() => void) | null;
}

type GroupKind = "all" | "any" | "none";

const GROUPS = () =>
  [
    ["all", t("allOfThese")],
    ["any", t("anyOfThese")],
    ["none", t("noneOfThese")],
  ] as const;

/** A group's kind and members; null for a single test. `none` is “not any”. */
function groupOf(condition: Condition): { kind: GroupKind; parts: Condition[] } | null {
  if ("all" in condition) return { kind: "all", parts: condition.all };
  if ("any" in condition) return { kind: "any", parts: condition.any };
  if ("not" in condition)
    return "any" in condition.not
      ? { kind: "none", parts: condition.not.any }
      : { kind: "none", parts: [condition.not] };
  return null;
}

function asGroup(kind: GroupKind, parts: Condition[]): Condition {
  if (kind === "all") return { all: parts };
  return kind === "any" ? { any: parts } : { not: { any: parts } };
}

/** A condition as a form: tests, and groups of which all, any or none must hold. */
export function ConditionForm({ condition, onChange, onRemove, ...askable }: Props) {
  const group = groupOf(condition);
  if (!group)
    return <TestForm test={condition as Test} onChange={onChange} onRemove={onRemove} {...askable} />;
  const { kind, parts } = group;
  const set = (next: Condition[]) => {
    if (next.length > 0) onChange(asGroup(kind, next));
    else onRemove?.();
  };
  return (
    <fieldset className="flex flex-col gap-2 border-l border-board pl-3">
      <legend className="flex items-baseline gap-2">
        <Select
          label={t("howManyMustHold")}
          className="lined-field font-semibold"
          value={kind}
          options={GROUPS()}
          onChange={(next) => onChange(asGroup(next, parts))}
        />
        {onRemove && (
          <button type="button" className="text-soft underline" onClick={onRemove}>
            {t("remove")}
          </button>
        )}
      </legend>
      {parts.map((part, index) => (
        <ConditionForm
          key={index}
          condition={part}
          onChange={(next) => set(parts.map((one, at) => (at === index ? next : one)))}
          onRemove={parts.length > 1 || onRemove ? () => set(parts.filter((_, at) => at !== index)) : null}
          {...askable}
        />
      ))}
      <span className="flex gap-4">
        <button
          type="button"
          className="quiet-link"
          onClick={() => set([...parts, firstTest(askable.blanks, askable.tokens)])}
        >
          {t("andATest")}
        </button>
        <button
          type="button"
          className="quiet-link"
          onClick={() => set([...parts, { any: [firstTest(askable.blanks, askable.tokens)] }])}
        >
          {t("andAGroup")}
        </button>
      </span>
    </fieldset>
  );
}

const messageParts = (): MessagePart[] => [
  ["message.subject", t("theMessagesSubject"), "text"],
  ["message.body", t("theMessagesText"), "text"],
  ["message.from", t("theMessagesSender"), "text"],
  ["message.to", t("theMessagesRecipient"), "text"],
  ["message.channel", t("theMessagesChannel"), "text"],
  ["message.language", t("theMessagesLanguage"), "language"],
  ["message.has_attachment", t("theMessageHasAFile"), "yes_no"],
];

const words = (): Record<Operator, string> => ({
  present: t("isKnown"),
  missing: t("isNotKnown"),
  equals: "is",
  differs: t("isNot"),
  contains: "contains",
  lacks: t("doesNotContain"),
  starts: t("startsWith"),
  ends: t("endsWith"),
  matches: t("matchesThePattern"),
  one_of: t("isOneOf"),
  less: t("isLessThan"),
  at_most: t("isAtMost"),
  more: t("isMoreThan"),
  at_least: t("isAtLeast"),
  before: t("isBefore"),
  after: t("isAfter"),
  between: t("isBetween"),
});

const known: Operator[] = ["present", "missing"];
const textual: Operator[] = ["equals", "differs", "contains", "lacks", "starts", "ends", "one_of", "matches"];
const numeric: Operator[] = ["equals", "differs", "less", "at_most", "more", "at_least", "between"];
const timely: Operator[] = ["before", "after", "between", "equals"];

function operatorsFor(type: TokenType | "choice" | "choices"): Operator[] {
  switch (type) {
    case "choice":
      return ["equals", "differs", "one_of", ...known];
    case "choices":
      return ["contains", "lacks", ...known];
    case "yes_no":
      return ["equals", ...known];
    case "integer":
    case "number":
    case "money":
      return [...numeric, ...known];
    case "date":
    case "time":
    case "datetime":
      return [...timely, ...known];
    default:
      return [...textual, ...known];
  }
}

/** What kind of value a name has, and the choices where they can be listed. */
function typeOf(
  name: string,
  { tokens, blanks, besides = [] }: Askable,
): {
  type: TokenType | "choice" | "choices";
  options: readonly Option[] | null;
  field?: PartChoice["field"];
} {
  const isBeside = besides.some(([part]) => part === name);
  if (isBeside || name.startsWith("message.")) {
    const [, , type = "text", choice] = [...messageParts(), ...besides].find(([part]) => part === name) ?? [];
    if (choice) return { type: "choice", options: choice.options ?? null, field: choice.field };
    return { type, options: name === "message.channel" ? sameWords(replyChannels) : null };
  }
  if (name.startsWith("blank.")) {
    const blank = blanks[name.slice("blank.".length)];
    if (blank?.kind === "choice")
      return { type: blank.many ? "choices" : "choice", options: sameWords(blank.options) };
    if (blank?.kind === "long_text") return { type: "text", options: null };
    return { type: blank?.kind ?? "text", options: null };
  }
  return { type: tokens.get(name)?.type ?? "text", options: null };
}

function TestForm({
  test,
  onChange,
  onRemove,
  ...askable
}: Askable & { test: Test; onChange: (test: Test) => void; onRemove: (() => void) | null }) {
  const { type, options, field } = typeOf(test.value, askable);
  // What is chosen by a field of its own is one, not several.
  const operators = operatorsFor(type).filter((one) => !field || one !== "one_of");
  const groups = askableGroups(askable, test.value);
  const setOperator = (is: Operator, value = test.value) => {
    const now = typeOf(value, askable);
    onChange(
      fitted(value, is, now.type, now.options, value === test.value ? test.to : undefined, test.ignore_case),
    );
  };
  return (
    <div className="flex flex-wrap items-baseline gap-x-2 gap-y-1.5">
      <Picker
        label={t("whatIsAskedFor")}
        className="lined-field max-w-48"
        value={test.value}
        words={wordsFor(test.value, groups)}
        groups={groups}
        onChange={(value) => setOperator(operatorsFor(typeOf(value, askable).type)[0] ?? "present", value)}
      />
      <Select
        label={t("howItIsCompared")}
        value={test.is}
        options={[...new Set([...operators, test.is])].map(
          (operator) => [operator, words()[operator]] as const,
        )}
        onChange={(is) => setOperator(is)}
      />
      <ConditionValue
        test={test}
        type={type}
        options={options}
        field={field}
        onChange={(to) => onChange({ ...test, to })}
      />
      {type === "text" && !known.includes(test.is) && (
        <label className="flex items-center gap-1.5 text-soft">
          <Checkbox
            checked={test.ignore_case ?? false}
            onChange={(on) => {
              const { ignore_case: _old, ...rest } = test;
              onChange(on ? { ...rest, ignore_case: true } : rest);
            }}
          />
          {t("capitalsDoNotMatter")}
        </label>
      )}
      {onRemove && (
        <button type="button" className="text-soft underline" onClick={onRemove}>
          {t("remove")}
        </button>
      )}
    </div>
  );
}

/** A test whose comparison value suits its operator, keeping what there was where it can. */
function fitted(
  value: string,
  is: Operator,
  type: TokenType | "choice" | "choices",
  options: readonly Option[] | null,
  to: Test["to"],
  ignoreCase: boolean | undefined,
): Test {
  const base: Test = { value, is, ...(ignoreCase ? { ignore_case: true } : {}) };
  if (known.includes(is)) return { value, is };
  const single = Array.isArray(to) ? to[0] : to;
  const usual = type === "yes_no" ? true : (options?.[0]?.[0] ?? "");
  if (is === "one_of") return { ...base, to: Array.isArray(to) ? to : [single ?? usual] };
  if (is === "between")
    return { ...base, to: Array.isArray(to) && to.length === 2 ? to : [single ?? "", single ?? ""] };
  return { ...base, to: single ?? usual };
}

/** Everything that a condition can ask for, under what it belongs to; of what is retired, what it asks for already. */
function askableGroups({ tokens, blanks, besides = [] }: Askable, asked: string): PickerGroup[] {
  const groups = new Map<string, Token[]>();
  for (const token of tokens.values())
    if ((!token.retired || token.name === asked) && !besides.some(([name]) => name === token.name))
      groups.set(token.group, [...(groups.get(token.group) ?? []), token]);
  const names = Object.keys(blanks);
  const besidesOf = (group: string) => besides.filter(([name]) => name.startsWith(`${group}.`));
  const optionOf = ([name, label]: MessagePart) => [name, label] as const;
  return [
    ...(names.length > 0
      ? [
          {
            heading: t("blanksOfThisReply"),
            options: names.map((name) => [`blank.${name}`, blankLabel(name, blanks[name])] as const),
          },
        ]
      : []),
    {
      heading: t("theCustomersMessage"),
      options: [...messageParts(), ...besidesOf("message")].map(optionOf),
    },
    ...[...groups].map(([heading, list]) => ({
      heading,
      options: [
        ...list.map((token) => [token.name, token.label] as const),
        ...besidesOf(heading).map(optionOf),
      ],
    })),
  ];
}

function wordsFor(name: string, groups: PickerGroup[]): string {
  const found = groups.flatMap(({ options }) => options).find(([one]) => one === name);
  return found?.[1] ?? t("nameThereIsNone", { name });
}
