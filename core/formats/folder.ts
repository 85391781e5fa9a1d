import { parseDocument } from "yaml";
import { readMarkdown } from "./markdown";
import {
  folderMatterSchema,
  repeated,
  textsFrom,
  replyMatterSchema,
  variantMatterSchema,
  zodProblems,
  type Library,
  type LibraryProblem,
  type LibraryReply,
  type LibraryVariant,
} from "./library";
import { t } from "../words/library";

/** A text file of a folder, by its path within it (`/` between names). */
export interface TextFile {
  path: string;
  text: string;
}

const FRONT_MATTER = /^\uFEFF?---[ \t]*\r?\n([\s\S]*?)\r?\n---[ \t]*(?:\r?\n|$)/;

/**
 * Reads a library from its Markdown files: `SHELF/ID.md`, variants as `SHELF/ID.LANGUAGE.md`, and
 * `library.yaml` for shelves and house facts. A file that cannot be read is reported and left out.
 */
export function readFolder(files: TextFile[]): { library: Library; problems: LibraryProblem[] } {
  const problems: LibraryProblem[] = [];
  const library: Library = { shelves: [], replies: [], houseFacts: {} };
  const variants: { of: string; path: string; variant: LibraryVariant }[] = [];
  for (const { path, text } of [...files].sort((a, b) => (a.path < b.path ? -1 : 1))) {
    const report = (message: string, line: number | null = null, column: number | null = null) => {
      problems.push({ where: path, line, column, message });
    };
    if (path === "library.yaml") {
      const matter = readYaml(text, 1, report);
      const parsed = folderMatterSchema.safeParse(matter ?? {});
      if (parsed.success) {
        library.shelves = parsed.data.shelves;
        library.houseFacts = parsed.data.house_facts;
      } else zodProblems(parsed.error).forEach((problem) => report(`${problem.path}: ${problem.message}`));
      continue;
    }
    if (!path.endsWith(".md")) continue;
    const match = FRONT_MATTER.exec(text);
    if (!match) {
      report(t("noFrontMatter"), 1, 1);
      continue;
    }
    const matter = readYaml(match[1] ?? "", 2, report);
    if (matter === undefined) continue;
    const bodyStart = match[0].split("\n").length - 1;
    const read = readMarkdown(text.slice(match[0].length));
    read.problems.forEach((problem) => report(problem.message, problem.line + bodyStart, problem.column));
    const ownText = (channel: string, markdown: string) => {
      const own = readMarkdown(markdown);
      own.problems.forEach((problem) => report(`texts.${channel}: ${problem.message}`));
      return own.doc;
    };
    if (typeof matter === "object" && matter !== null && "variant_of" in matter) {
      const parsed = variantMatterSchema.safeParse(matter);
      if (!parsed.success)
        zodProblems(parsed.error).forEach((problem) => report(`${problem.path}: ${problem.message}`));
      else {
        const { variant_of: of, language, title = null, subject = null } = parsed.data;
        const texts = textsFrom(parsed.data.texts, ownText);
        variants.push({ of, path, variant: { language, title, subject, document: read.doc, texts } });
      }
      continue;
    }
    const parsed = replyMatterSchema.safeParse(matter);
    if (!parsed.success) {
      zodProblems(parsed.error).forEach((problem) => report(`${problem.path}: ${problem.message}`));
      continue;
    }
    const { language, subject = null, texts: given, ...rest } = parsed.data;
    const texts = textsFrom(given, ownText);
    const shelf = path.includes("/") ? path.slice(0, path.lastIndexOf("/")) : null;
    library.replies.push({
      ...rest,
      shelf,
      variants: [{ language, title: null, subject, document: read.doc, texts }],
    });
  }
  for (const { of, path, variant } of variants) {
    const reply = library.replies.find((one) => one.id === of);
    if (!reply)
      problems.push({
        where: path,
        line: null,
        column: null,
        message: t("noReplyToBeAVariantOf", { id: of }),
      });
    else addVariant(reply, variant, path, problems);
  }
  problems.push(...repeated(library.replies));
  return { library, problems };
}

function addVariant(
  reply: LibraryReply,
  variant: LibraryVariant,
  path: string,
  problems: LibraryProblem[],
): void {
  if (reply.variants.some((one) => one.language === variant.language)) {
    problems.push({
      where: path,
      line: null,
      column: null,
      message: t("twoVariantsInOneLanguage", { id: reply.id, language: variant.language }),
    });
  } else reply.variants.push(variant);
}

/** YAML as data; undefined when it does not parse. Lines are those of the whole file. */
function readYaml(
  text: string,
  firstLine: number,
  report: (message: string, line: number, column: number) => void,
): unknown {
  const document = parseDocument(text);
  for (const error of document.errors) {
    const start = error.linePos?.[0];
    report(
      t("yaml", { problem: error.message.split("\n")[0] ?? error.code }),
      (start?.line ?? 1) + firstLine - 1,
      start?.col ?? 1,
    );
  }
  return document.errors.length > 0 ? undefined : (document.toJS({ maxAliasCount: 0 }) as unknown);
}
