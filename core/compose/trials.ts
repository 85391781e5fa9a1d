import { choicesOf, steeringBlanks } from "../conditions/coverage";
import { languageName } from "../language/tag";
import type { Passages } from "../conditions/condition";
import {
  blankLabel,
  blankWords,
  type Blank,
  type Blanks,
  type BlankValue,
  type BlankValues,
} from "../tokens/blanks";
import { ownEntry } from "../tokens/own";
import type { Token } from "../tokens/catalogue";
import type { Context } from "../tokens/context";
import { plain } from "../tokens/format";
import { lookUp } from "../tokens/values";
import { t } from "../words/letters";

/** A case that a reply can be tried on. */
export interface TrialCase {
  number: number;
  label: string;
  customer: string;
  channel: string;
  /** BCP 47 tag of the letter. */
  language: string;
  subject: string;
  context: Context;
}

/** A letter to try: a case, what is filled in, and why it is worth a look. */
export interface Trial {
  case: TrialCase;
  values: BlankValues;
  why: string[];
}

/** What of a reply decides which cases are awkward for it. */
export interface TriedReply {
  /** Full names of the tokens that it reads. */
  tokens: ReadonlySet<string>;
  blanks: Blanks;
  passages: Passages;
  languages: string[];
}

/** More automatic trials than this would be read by nobody. */
const MOST_TRIALS = 12;

/**
 * Chooses cases on which a reply shows how it may go wrong: a plain one first, then one for each value
 * that is missing somewhere, the longest values, other languages, and as many as it takes to see every choice
 * of every blank that steers a passage.
 * @param pinned numbers of cases that the writer chose; they come first
 */
export function chooseTrials(
  reply: TriedReply,
  pool: TrialCase[],
  pinned: number[],
  tokens: ReadonlyMap<string, Token>,
): Trial[] {
  const trials: Trial[] = [];
  const add = (one: TrialCase | undefined, why: string, most = MOST_TRIALS) => {
    if (!one) return;
    const known = trials.find((trial) => trial.case.number === one.number);
    if (known) known.why.push(why);
    else if (trials.length < most) trials.push({ case: one, values: sampleValues(reply.blanks), why: [why] });
  };
  for (const number of pinned)
    add(
      pool.find((one) => one.number === number),
      t("chosenByYou"),
      Infinity,
    );
  const values = new Map(pool.map((one) => [one.number, valuesOf(one, reply.tokens)]));
  const has = (one: TrialCase) =>
    [...(values.get(one.number)?.values() ?? [])].filter((text) => text !== null).length;
  const byFullness = [...pool].sort((a, b) => has(b) - has(a));
  add(byFullness[0], t("hasWhatTheReplyUses"));
  for (const name of reply.tokens) {
    if (name.startsWith("house.")) continue;
    const lacking = byFullness.filter((one) => values.get(one.number)?.get(name) === null);
    const shown = lacking.find((one) => trials.some((trial) => trial.case.number === one.number));
    add(shown ?? lacking[0], t("lacksLabel", { label: tokens.get(name)?.label ?? name }));
  }
  const length = (one: TrialCase) =>
    [...(values.get(one.number)?.values() ?? [])].reduce((sum, text) => sum + (text?.length ?? 0), 0);
  if (reply.tokens.size > 0)
    add(
      [...pool].sort((a, b) => length(b) - length(a)).find((one) => length(one) > 0),
      t("longestValues"),
    );
  const spoken = new Set<string>();
  for (const one of byFullness) {
    const language = one.language.slice(0, 2);
    if (spoken.has(language)) continue;
    spoken.add(language);
    if (spoken.size > 1) add(one, t("writesLanguage", { language: languageName(one.language) }));
  }
  return withEveryChoice(trials, reply, pool);
}

/** Gives the trials the choices of steering blanks in turn, and adds trials until every choice is seen. */
function withEveryChoice(trials: Trial[], reply: TriedReply, pool: TrialCase[]): Trial[] {
  const steering = steeringBlanks(reply.passages).flatMap((name) => {
    const blank = ownEntry(reply.blanks, name);
    const choices = blank ? choicesOf(blank).filter(isSingle) : [];
    return blank && choices.length > 0 ? [{ name, blank, choices }] : [];
  });
  const most = Math.max(0, ...steering.map(({ choices }) => choices.length));
  for (let index = 0; trials.length < most && pool.length > 0; index += 1) {
    const one = trials[index]?.case ?? pool[index % pool.length];
    if (one) trials.push({ case: one, values: sampleValues(reply.blanks), why: [] });
  }
  return trials.map((trial, index) => {
    const values = { ...trial.values };
    const why = [...trial.why];
    for (const { name, blank, choices } of steering) {
      const value = choices[index % choices.length] ?? null;
      values[name] = value;
      if (index < choices.length) why.push(`${blankLabel(name, blank)}: ${blankWords(value)}`);
    }
    return { ...trial, values, why };
  });
}

function valuesOf({ context }: TrialCase, names: ReadonlySet<string>): Map<string, string | null> {
  return new Map(
    [...names].map((name) => {
      const value = lookUp(context, name, null);
      return [name, value.kind === "missing" ? null : plain(value.value)];
    }),
  );
}

/** Something of each blank's kind, so that a trial reads like a letter. */
function sampleValues(blanks: Blanks): BlankValues {
  return Object.fromEntries(Object.entries(blanks).map(([name, blank]) => [name, sampleValue(name, blank)]));
}

function sampleValue(name: string, blank: Blank): BlankValue {
  if (blank.default !== undefined) return null;
  switch (blank.kind) {
    case "text":
    case "long_text":
      return blankLabel(name, blank);
    case "number":
    case "money":
      return Math.max(blank.min ?? 2, Math.min(2, blank.max ?? 2));
    case "date":
      return blank.min ?? blank.max ?? "2027-03-01";
    case "time":
      return "07:40";
    case "choice":
      return blank.many ? blank.options.slice(0, 1) : (blank.options[0] ?? null);
    case "yes_no":
      return true;
  }
}

function isSingle(value: BlankValue): boolean {
  return !Array.isArray(value) || value.length === 1;
}
