import * as z from "zod/mini";
import { isMarkName, isNodeName, marks, nodes, type NodeName, type Shape } from "./definition";
import type { Doc } from "./types";
import { t } from "../words/library";

/** Deepest nesting that is read; deeper documents are refused rather than risked. */
const MAX_DEPTH = 40;
/** Most nodes of a document. */
const MAX_NODES = 20_000;
/** Most problems that are told of one document; what is wrong everywhere need not be said everywhere. */
const MOST_PROBLEMS = 20;

interface Problem {
  path: (string | number)[];
  message: string;
}

const plainObject = z.record(z.string(), z.unknown());

/** Zod schema of a whole document; unknown nodes, marks and attributes are refused with their path. */
export const documentSchema = z.pipe(
  z.unknown(),
  z.transform((value, context): Doc => {
    const problems: Problem[] = [];
    const doc = readNode(value, [], 0, problems, { nodes: 0 });
    if (problems.length === 0 && (!isRecord(doc) || doc.type !== "doc")) {
      problems.push({ path: ["type"], message: t("aDocumentStartsWithDoc") });
    }
    for (const { path, message } of problems)
      context.issues.push({ code: "custom", path, message, input: value });
    return problems.length > 0 ? z.NEVER : (doc as unknown as Doc);
  }),
);

/**
 * Reads a document that came from outside (the editor, a file, the database).
 * Attributes that are left out take their defaults, so equal documents compare equal.
 * @returns the document, or the first problem in words with the path to it.
 */
export function readDocument(json: unknown): { ok: true; doc: Doc } | { ok: false; problem: string } {
  const result = documentSchema.safeParse(json);
  if (result.success) return { ok: true, doc: result.data };
  const issue = result.error.issues[0];
  const problem = issue?.message ?? t("notADocument");
  const place = issue?.path.join(".") ?? "";
  return { ok: false, problem: place === "" ? problem : t("problemAtPlace", { problem, place }) };
}

/** A document that holds nothing but one empty paragraph. */
export function emptyDocument(): Doc {
  return { type: "doc", content: [{ type: "paragraph", attrs: { passages: [] }, content: [] }] };
}

function isRecord(value: unknown): value is Record<string, unknown> {
  return typeof value === "object" && value !== null && !Array.isArray(value);
}

function readNode(
  value: unknown,
  path: (string | number)[],
  depth: number,
  problems: Problem[],
  count: { nodes: number },
): Record<string, unknown> | null {
  if (problems.length >= MOST_PROBLEMS || count.nodes > MAX_NODES) return null;
  count.nodes += 1;
  const fail = (message: string, at = path) => {
    problems.push({ path: at, message });
    return null;
  };
  if (count.nodes > MAX_NODES) return fail(t("morePartsThan", { most: MAX_NODES }));
  if (depth > MAX_DEPTH) return fail(t("nestedDeeperThan", { most: MAX_DEPTH }));
  if (!isRecord(value) || typeof value.type !== "string") return fail(t("notANode"));
  const name = value.type;
  if (!isNodeName(name)) return fail(t("unknownNode", { name }));
  for (const key of Object.keys(value)) {
    if (!["type", "attrs", "content", "marks", "text"].includes(key)) {
      return fail(t("unknownKey", { key }), [...path, key]);
    }
  }
  const node: Record<string, unknown> = { type: name };
  if (name === "text") {
    if (typeof value.text !== "string" || value.text === "") return fail(t("aTextWithoutWords"));
    node.text = value.text;
  }
  const attrs = readAttrs(nodes[name].attrs, value.attrs, [...path, "attrs"], problems);
  if (Object.keys(nodes[name].attrs).length > 0) node.attrs = attrs;
  if ("content" in nodes[name]) {
    const children = value.content ?? [];
    if (!Array.isArray(children)) return fail(t("contentIsNotAList"), [...path, "content"]);
    const content = children.map((child, index) =>
      readNode(child, [...path, "content", index], depth + 1, problems, count),
    );
    if (problems.length > 0) return null;
    node.content = content;
    const names = content.map((child) => child?.type as NodeName);
    if (!allows(name, names)) {
      return fail(
        names.length ? t("cannotHold", { name, what: names.join(", ") }) : t("cannotBeEmpty", { name }),
      );
    }
  } else if (Array.isArray(value.content) && value.content.length > 0) {
    return fail(t("cannotHoldAnything", { name }));
  }
  const readMarks = readMarkList(value.marks, [...path, "marks"], problems);
  if (readMarks.length > 0) {
    if (!("group" in nodes[name]) || nodes[name].group !== "inline") {
      return fail(t("cannotCarryMarks", { name }));
    }
    node.marks = readMarks;
  }
  return node;
}

function readAttrs(
  shape: Shape,
  value: unknown,
  path: (string | number)[],
  problems: Problem[],
): Record<string, unknown> {
  const given = plainObject.safeParse(value ?? {});
  if (!given.success) {
    problems.push({ path, message: t("attributesAreNotAnObject") });
    return {};
  }
  const attrs: Record<string, unknown> = {};
  for (const key of Object.keys(given.data)) {
    if (!Object.hasOwn(shape, key)) {
      problems.push({ path: [...path, key], message: t("unknownAttribute", { key }) });
    }
  }
  for (const [key, schema] of Object.entries(shape)) {
    const result = schema.safeParse(given.data[key]);
    if (result.success) attrs[key] = result.data;
    else {
      problems.push({
        path: [...path, key],
        message: result.error.issues[0]?.message ?? t("notAUsableValue"),
      });
    }
  }
  return attrs;
}

function readMarkList(
  value: unknown,
  path: (string | number)[],
  problems: Problem[],
): Record<string, unknown>[] {
  if (value === undefined) return [];
  if (!Array.isArray(value)) {
    problems.push({ path, message: t("marksAreNotAList") });
    return [];
  }
  return value.flatMap((mark: unknown, index): Record<string, unknown>[] => {
    const at = [...path, index];
    if (!isRecord(mark) || typeof mark.type !== "string" || !isMarkName(mark.type)) {
      problems.push({ path: at, message: t("unknownMark") });
      return [];
    }
    const shape = marks[mark.type];
    const attrs = readAttrs(shape, mark.attrs, [...at, "attrs"], problems);
    return [Object.keys(shape).length > 0 ? { type: mark.type, attrs } : { type: mark.type }];
  });
}

const contentPatterns = new Map<NodeName, RegExp>();

/** Whether a node may hold these children, by its content expression. */
function allows(parent: NodeName, children: NodeName[]): boolean {
  let pattern = contentPatterns.get(parent);
  if (!pattern) {
    const definition = nodes[parent];
    pattern = toPattern("content" in definition ? definition.content : "");
    contentPatterns.set(parent, pattern);
  }
  return pattern.test(children.map((child) => `${child},`).join(""));
}

/** Content expressions are regular expressions over node names; groups stand for their members. */
function toPattern(expression: string): RegExp {
  const source = expression.replace(/\w+/g, (word) => {
    const members = Object.entries(nodes).flatMap(([name, definition]) =>
      name === word || ("group" in definition && definition.group === word) ? [name] : [],
    );
    return `(?:(?:${members.join("|")}),)`;
  });
  return new RegExp(`^${source.replaceAll(" ", "")}$`);
}
