import type { Condition } from "../conditions/condition";
import type { Values } from "../conditions/evaluate";
import { plain } from "../tokens/format";
import type { Said } from "./decide";

/** How a message of the past was answered; nobody did where there are neither replies nor words by hand. */
export interface Answered {
  /** Ids of the replies of the first letter after it. */
  replies: readonly string[];
  byHand: boolean;
}

/**
 * What a rule would have been to a message of the past. It takes it: as people did (`agreed`), where people answered otherwise
 * (`otherwise`), where nobody did (`unanswered`). It is for it and may not: `held`. It leaves alone what people answered with
 * its reply: `missed`; and all the rest: `none`.
 */
export const sides = ["otherwise", "agreed", "unanswered", "missed", "held", "none"] as const;
export type Side = (typeof sides)[number];

/** What a rehearsal of a rule came to. */
export interface Rehearsed extends Record<Side, number> {
  /** ISO 8601 instant. */
  at: string;
  messages: number;
  /** How many that somebody marked come out other than they should. */
  wrong: number;
  milliseconds: number;
  /** Stands for the rule as it was then. */
  rule: string;
}

export function sideOf(does: Said["does"], { replies, byHand }: Answered, reply: string): Side {
  const isSame = replies.includes(reply);
  if (does === "held") return "held";
  if (does === "passes") return isSame ? "missed" : "none";
  if (isSame) return "agreed";
  return replies.length > 0 || byHand ? "otherwise" : "unanswered";
}

/** So many of each side are kept to be read: the latest. */
const MOST_READ = 60;
/** So many of the taken are compared for a further test. */
const MOST_COMPARED = 4000;
/** So many words of a message are compared. */
const MOST_WORDS = 80;
/** What is lost of what people did as well weighs so much more than what is won. */
const LOST = 2;

/** What may tell apart messages that a rule takes: values of few kinds, and the message's words. */
const TOLD_BY = [
  "message.language",
  "message.channel",
  "message.in_hours",
  "message.has_attachment",
  "organisation.kind",
];

interface Compared {
  isAgreed: boolean;
  values: ReadonlyMap<string, string>;
  words: ReadonlySet<string>;
}

/** One more test of a rule, and what it would take away: of the disagreements, and of what people did as well. */
export interface Suggestion {
  test: Condition;
  otherwise: number;
  agreed: number;
}

/** Counts what a rule would have been to messages, one after the other. @param Kept what is kept of a message to be read */
export class Tally<Kept> {
  readonly counts = Object.fromEntries(sides.map((side) => [side, 0])) as Record<Side, number>;
  readonly #kept = new Map<Side, Kept[]>();
  readonly #compared: Compared[] = [];

  /** @param kept what is to be read of it */
  add(side: Side, values: Values, kept: () => Kept): void {
    this.counts[side] += 1;
    if (side === "none") return;
    const list = this.#kept.get(side) ?? [];
    list.push(kept());
    // Cut now and then: a list that loses its first at each step would be slow.
    if (list.length >= 2 * MOST_READ) list.splice(0, MOST_READ);
    this.#kept.set(side, list);
    if ((side === "agreed" || side === "otherwise") && this.#compared.length < MOST_COMPARED)
      this.#compared.push(comparedBy(values, side === "agreed"));
  }

  /** The latest of a side, the latest first. */
  latest(side: Side): Kept[] {
    return (this.#kept.get(side) ?? []).slice(-MOST_READ).reverse();
  }

  /** The test that takes away most disagreements for the least of what people did as well; null where none is worth it. */
  suggestion(): Suggestion | null {
    const otherwise = this.#compared.filter((one) => !one.isAgreed);
    const agreed = this.#compared.filter((one) => one.isAgreed);
    let best: (Suggestion & { score: number }) | null = null;
    for (const { test, holds } of candidates(this.#compared)) {
      const lost = (among: Compared[]) => among.filter((one) => !holds(one)).length;
      const [won, given] = [lost(otherwise), lost(agreed)];
      const score = won - LOST * given;
      // One that leaves nothing of what people did as well is no rule any more.
      if (won > 0 && score > 0 && given < agreed.length && (best === null || score > best.score))
        best = { test, otherwise: won, agreed: given, score };
    }
    return best && { test: best.test, otherwise: best.otherwise, agreed: best.agreed };
  }
}

function comparedBy(values: Values, isAgreed: boolean): Compared {
  const known = TOLD_BY.flatMap((name) => {
    const found = values.value(name);
    return found.kind === "value" ? [[name, plain(found.value)] as const] : [];
  });
  const body = values.value("message.body");
  const text = body.kind === "value" ? plain(body.value).toLocaleLowerCase("en") : "";
  const words = new Set<string>();
  for (const [word] of text.matchAll(/\p{L}{4,24}/gu)) if (words.size < MOST_WORDS) words.add(word);
  return { isAgreed, values: new Map(known), words };
}

interface Candidate {
  test: Condition;
  holds: (one: Compared) => boolean;
}

/** Tests that some of the compared would pass and others not. */
function candidates(compared: Compared[]): Candidate[] {
  const found: Candidate[] = [];
  for (const name of TOLD_BY) {
    const seen = new Set(compared.flatMap(({ values }) => values.get(name) ?? []));
    for (const value of seen) {
      const to = value === "true" ? true : value === "false" ? false : value;
      found.push(
        { test: { value: name, is: "equals", to }, holds: ({ values }) => values.get(name) === value },
        { test: { value: name, is: "differs", to }, holds: ({ values }) => values.get(name) !== value },
      );
    }
  }
  for (const word of wordsOfOtherwise(compared))
    found.push({
      test: { value: "message.body", is: "lacks", to: word, ignore_case: true },
      holds: ({ words }) => !words.has(word),
    });
  return found;
}

/** So many words are tried. */
const MOST_TRIED = 300;

/** The words that most of the disagreements have, and few of the others. */
function wordsOfOtherwise(compared: Compared[]): string[] {
  const counts = new Map<string, number>();
  for (const { isAgreed, words } of compared)
    for (const word of words) counts.set(word, (counts.get(word) ?? 0) + (isAgreed ? -LOST : 1));
  return [...counts]
    .filter(([, count]) => count > 0)
    .sort(([a, many], [b, others]) => others - many || (a < b ? -1 : 1))
    .slice(0, MOST_TRIED)
    .map(([word]) => word);
}
