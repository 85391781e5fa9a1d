import type { Token } from "#core/tokens/catalogue";
import type { Blanks } from "#core/tokens/blanks";
import { blankLabel } from "#core/tokens/blanks";
import { isGuaranteed, whyUncertain, type SubjectMatter } from "#core/checks/guarantee";
import { t } from "../../words/writing";

/** A row of the list of values: a token, or a blank of the reply. */
export interface ValueRow {
  kind: "token" | "blank";
  name: string;
  label: string;
  group: string;
  /** Its value for the case that is tried on. */
  sample: string | null;
  /** Why it may be missing; null where it is sure. */
  uncertain: string | null;
}

const groups = (): Record<string, string> => ({
  case: t("case"),
  customer: t("customer"),
  organisation: t("organisation"),
  booking: t("booking"),
  agent: t("agent"),
  house: t("houseFacts"),
  ask: t("questions"),
  answer: t("answersThatWerePressed"),
});

/** Every value that a reply may use, in groups: what is retired is offered no more. */
export function valueRows(
  tokens: ReadonlyMap<string, Token>,
  blanks: Blanks,
  about: SubjectMatter,
  sample: (name: string) => string | null,
): ValueRow[] {
  const own = Object.entries(blanks).map(([name, blank]): ValueRow => ({
    kind: "blank",
    name,
    label: blankLabel(name, blank),
    group: t("blanksOfThisReply"),
    sample: blank.kind === "choice" ? blank.options.join(" / ") : blank.kind.replace("_", " "),
    uncertain: null,
  }));
  const offered = [...tokens.values()].filter(({ retired }) => !retired);
  const all = offered.map((token): ValueRow => ({
    kind: "token",
    name: token.name,
    label: token.label,
    group: groups()[token.group] ?? token.group,
    sample: sample(token.name),
    uncertain: isGuaranteed(token, about) ? null : whyUncertain(token.name, about),
  }));
  return [...own, ...all];
}

/** The rows that a search means, the nearest first; all in their groups where nothing is searched. */
export function nearest(rows: ValueRow[], searched: string): ValueRow[] {
  const words = searched
    .toLowerCase()
    .split(/[\s._]+/)
    .filter(Boolean);
  if (words.length === 0) return rows;
  return rows
    .map((row) => ({ row, score: score(row, words) }))
    .filter(({ score: found }) => found > 0)
    .sort((a, b) => b.score - a.score)
    .map(({ row }) => row);
}

/**
 * Every word must be found: at the start of the label it counts most, then at the start of a word, then anywhere.
 * A reply's own blanks come before tokens that are as near.
 */
function score(row: ValueRow, words: string[]): number {
  const label = row.label.toLowerCase();
  const text = ` ${label} ${row.name.replaceAll(/[._]/g, " ")} ${row.group.toLowerCase()}`;
  let sum = row.kind === "blank" ? 0.5 : 0;
  for (const word of words) {
    if (label.startsWith(word)) sum += 4;
    else if (text.includes(` ${word}`)) sum += 2;
    else if (text.includes(word)) sum += 1;
    else if (isSubsequence(word, label)) sum += 0.25;
    else return 0;
  }
  return sum - label.length / 1000;
}

/** Whether the letters of a word stand in a text in their order: forgives letters left out. */
function isSubsequence(word: string, text: string): boolean {
  if (word.length < 3) return false;
  let at = 0;
  for (const letter of text) if (letter === word[at]) at += 1;
  return at === word.length;
}
