import { re2Patterns } from "../conditions/re2";
import type { Library, LibraryProblem, LibraryReply } from "../formats/library";
import {
  catalogue,
  type DetailToken,
  type QuestionToken,
  type OwnToken,
  type Token,
} from "../tokens/catalogue";
import type { Context } from "../tokens/context";
import { smsSegments } from "../sms/segments";
import { tokensUsed } from "./tokens-used";
import { checkReply } from "./writing";
import type { WrittenReply } from "./written";
import { t } from "../words/checks";

/** One finding for whoever keeps the library. */
export interface LintFinding {
  reply: string | null;
  language: string | null;
  code: string;
  message: string;
  where: string | null;
  line: number | null;
  column: number | null;
}

/**
 * The tokens that a library's replies may use: the built-in ones, its own house facts and what outside systems tell. Which
 * questions there are a library does not say: those that it names count as there.
 */
export function libraryTokens(library: Library, details: DetailToken[]): ReadonlyMap<string, Token> {
  return catalogue({ houseFacts: factsOf(library), details, questions: questionsOf(library) });
}

function questionsOf({ replies }: Library): QuestionToken[] {
  const names = replies.flatMap((reply) => [...tokensUsed(reply)]);
  const keys = names.flatMap((name) => /^(?:ask|answer)\.(.+)$/.exec(name)?.[1] ?? []);
  return [...new Set(keys)].map((key) => ({
    key,
    words: key.replaceAll("_", " "),
    type: "text",
    example: key,
  }));
}

/** The languages of a library's facts, as letters read them: a fact without any reads the same in all. */
export function factLanguages({ houseFacts }: Library): Context["written"] {
  return Object.fromEntries(
    Object.entries(houseFacts)
      .filter(([, { language, texts }]) => language !== undefined || Object.keys(texts).length > 0)
      .map(([key, { language, texts }]) => [`house.${key}`, { language: language ?? null, others: texts }]),
  );
}

function factsOf(library: Library): OwnToken[] {
  return Object.entries(library.houseFacts).map(([key, fact]) => ({
    key,
    label: fact.label,
    type: fact.type,
    example: fact.value,
  }));
}

/**
 * Looks through a library. Findings come in the order of its replies; reading problems first.
 * @param details what outside systems tell of a case, for the library does not say it
 * @param now ISO 8601 instant, for dates that have passed; null to leave them
 */
export function lint(
  library: Library,
  problems: LibraryProblem[],
  details: DetailToken[],
  now: string | null = null,
): LintFinding[] {
  const input = {
    tokens: libraryTokens(library, details),
    facts: factsOf(library),
    patterns: re2Patterns,
    segments: smsSegments,
    now,
  };
  const noPlace = { reply: null, language: null, where: null, line: null, column: null };
  const usedFacts = new Set<string>();
  const findings = problems.map(({ where, line, column, message }): LintFinding => ({
    ...noPlace,
    code: "unreadable",
    message,
    where,
    line,
    column,
  }));
  for (const reply of library.replies) {
    const written = writtenReply(reply);
    const seen = new Set<string>();
    for (const { code, message, language } of checkReply(written, input)) {
      const key = `${language} ${message}`;
      if (seen.has(key)) continue;
      seen.add(key);
      findings.push({ ...noPlace, reply: reply.id, language, code, message });
    }
    for (const name of tokensUsed(written)) usedFacts.add(name);
  }
  for (const key of Object.keys(library.houseFacts)) {
    if (!usedFacts.has(`house.${key}`))
      findings.push({ ...noPlace, code: "fact-unused", message: t("noReplyUsesTheHouseFact", { key }) });
  }
  return findings;
}

function writtenReply(reply: LibraryReply): WrittenReply {
  const { part, channels, blanks, passages, variants, topics, with_booking: withBooking } = reply;
  return { part, channels, blanks, passages, variants, about: { topics, withBooking } };
}
