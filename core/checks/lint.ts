import { re2Patterns } from "../conditions/re2";
import { testsOf, type Condition } from "../conditions/condition";
import type { Doc } from "../document/types";
import { passagesOf, placeholdersOf, walk } from "../document/walk";
import type { Library, LibraryProblem, LibraryReply } from "../formats/library";
import { formatFunctions } from "../tokens/format";
import { catalogue, type Token } from "../tokens/catalogue";
import { readText } from "../tokens/text-form";

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

/** The tokens that a library's replies may use: the built-in ones and its own house facts. */
export function libraryTokens(library: Library): Map<string, Token> {
  return catalogue({
    houseFacts: Object.entries(library.houseFacts).map(([key, fact]) => ({
      key,
      label: fact.label,
      type: fact.type,
      example: fact.value,
    })),
  });
}

/** Looks through a library. Findings come in the order of its replies; reading problems first. */
export function lint(library: Library, problems: LibraryProblem[]): LintFinding[] {
  const tokens = libraryTokens(library);
  const usedFacts = new Set<string>();
  const findings = problems.map(({ where, line, column, message }): LintFinding => ({
    reply: null,
    language: null,
    code: "unreadable",
    message,
    where,
    line,
    column,
  }));
  for (const reply of library.replies) findings.push(...lintReply(reply, tokens, usedFacts));
  for (const key of Object.keys(library.houseFacts)) {
    if (usedFacts.has(`house.${key}`)) continue;
    findings.push({
      reply: null,
      language: null,
      code: "fact-unused",
      message: `No reply uses the house fact “${key}”`,
      where: null,
      line: null,
      column: null,
    });
  }
  return findings;
}

function lintReply(
  reply: LibraryReply,
  tokens: ReadonlyMap<string, Token>,
  usedFacts: Set<string>,
): LintFinding[] {
  const findings: LintFinding[] = [];
  const blanks = new Set<string>();
  const passages = new Set<string>();
  const report = (code: string, message: string, language: string | null = null) => {
    if (findings.some((finding) => finding.message === message && finding.language === language)) return;
    findings.push({ reply: reply.id, language, code, message, where: null, line: null, column: null });
  };
  const useName = (name: string, language: string | null) => {
    if (name.startsWith("message.")) return;
    if (name.startsWith("blank.")) {
      const key = name.slice("blank.".length);
      blanks.add(key);
      if (!Object.hasOwn(reply.blanks, key)) report("blank-unknown", `There is no blank “${key}”`, language);
      return;
    }
    usedFacts.add(name);
    if (!tokens.has(name)) report("token-unknown", `There is no token “${name}”`, language);
  };

  for (const variant of reply.variants) {
    const subject = readText(variant.subject ?? "");
    for (const problem of subject.problems)
      report("text-unreadable", `Subject: ${problem.message}`, variant.language);
    const inText = subject.pieces.filter((piece) => piece.type !== "text");
    for (const node of [
      ...inText,
      ...placeholdersOf(variant.document),
      ...linkPlaceholders(variant.document, (message) =>
        report("text-unreadable", message, variant.language),
      ),
    ]) {
      useName(node.type === "blank" ? `blank.${node.attrs.name}` : node.attrs.name, variant.language);
      const { fn } = node.attrs;
      if (fn !== null && !(formatFunctions as readonly string[]).includes(fn)) {
        report("function-unknown", `There is no format “:${fn}”`, variant.language);
      }
    }
    for (const text of leftovers(variant.document))
      report("text-unreadable", `“${text}” is not a token that can be read`, variant.language);
    walk(variant.document, (node) => {
      for (const { id } of passagesOf(node)) {
        passages.add(id);
        if (!Object.hasOwn(reply.passages, id))
          report("passage-unknown", `There is no passage “${id}”`, variant.language);
      }
    });
  }
  for (const [id, passage] of Object.entries(reply.passages)) {
    for (const test of testsOf(passage.when)) {
      useName(test.value, null);
      if (test.is === "matches" && re2Patterns(String(test.to), false) === null) {
        report("condition-unusable", `The regular expression of the passage “${id}” cannot be used`);
      }
    }
    if (!passages.has(id)) report("passage-unused", `The passage “${id}” is used nowhere`);
    if (never(passage.when, reply)) report("passage-never", `The passage “${id}” can never stand`);
  }
  for (const blank of Object.values(reply.blanks)) {
    for (const piece of readText(blank.default ?? "").pieces)
      if (piece.type === "token") useName(piece.attrs.name, null);
  }
  for (const name of Object.keys(reply.blanks)) {
    if (!blanks.has(name)) report("blank-unused", `The blank “${name}” is used nowhere`);
  }
  return findings;
}

function linkPlaceholders(doc: Doc, report: (message: string) => void) {
  const hrefs = new Set<string>();
  walk(doc, (node) => {
    if (node.type === "text")
      node.marks?.forEach((mark) => mark.type === "link" && hrefs.add(mark.attrs.href));
  });
  return [...hrefs]
    .filter((href) => href.includes("{"))
    .flatMap((href) => {
      const read = readText(href);
      for (const problem of read.problems) report(`Link address: ${problem.message}`);
      return read.pieces.filter((piece) => piece.type !== "text");
    });
}

function leftovers(doc: Doc): string[] {
  const found: string[] = [];
  walk(doc, (node) => {
    if (node.type === "text") found.push(...(node.text.match(/\{\s*\$[^{}]*\}?/g) ?? []));
  });
  return found;
}

/**
 * Whether a condition can be seen to hold never: it asks a choice for something that is not offered,
 * or one value for two different things at once. What cannot be decided counts as possible.
 */
function never(condition: Condition, reply: LibraryReply): boolean {
  if ("any" in condition) return condition.any.every((part) => never(part, reply));
  if ("not" in condition) return false;
  if ("all" in condition) {
    if (condition.all.some((part) => never(part, reply))) return true;
    const wanted = new Map<string, string>();
    return condition.all.some((part) => {
      if (!("value" in part)) return false;
      const present = condition.all.some(
        (other) => "value" in other && other.value === part.value && other.is === "missing",
      );
      if (present && part.is !== "missing" && part.is !== "differs" && part.is !== "lacks") return true;
      if (part.is !== "equals") return false;
      const known = wanted.get(part.value);
      wanted.set(part.value, String(part.to));
      return known !== undefined && known !== String(part.to);
    });
  }
  const blank = condition.value.startsWith("blank.")
    ? reply.blanks[condition.value.slice("blank.".length)]
    : undefined;
  if (blank?.kind !== "choice" || condition.ignore_case) return false;
  if (condition.is === "equals") return !blank.options.includes(String(condition.to));
  if (condition.is === "contains" && blank.many) return !blank.options.includes(String(condition.to));
  if (condition.is === "one_of" && Array.isArray(condition.to))
    return !condition.to.some((one) => blank.options.includes(String(one)));
  return false;
}
