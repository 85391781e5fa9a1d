import { mapInlines } from "../document/inlines";
import type { Doc, Inline, TextNode, TokenNode } from "../document/types";
import { walk } from "../document/walk";
import { tokenGroups, type Context } from "./context";
import type { Token } from "./catalogue";
import { formatValue, plain, type Style } from "./format";
import { lookUp } from "./values";

/** Words of a letter that say a value of its case, and the token that would say it of any. */
export interface Recognised {
  /** Position in the document, as ProseMirror counts. */
  from: number;
  to: number;
  words: string;
  token: TokenNode;
  label: string;
  /** Whether the words came from this token, and are not only like its value. */
  certain: boolean;
}

/**
 * Finds a case's own values in the words of a letter: names, numbers, references, dates in the usual formats.
 * Words that a token printed are known by their source; the longest value wins where several fit.
 * @param doc a composed document or any other; sources are read where they stand
 * @returns in the order of the words, none overlapping another
 */
export function recognise(
  doc: Doc,
  context: Context,
  tokens: ReadonlyMap<string, Token>,
  style: Style,
): Recognised[] {
  const values = writtenValues(context, tokens, style);
  const found: Recognised[] = [];
  walk(doc, (node, position) => {
    if (node.type !== "text") return;
    const name = node.source?.kind === "token" && !node.source.missing ? node.source.name : undefined;
    const token = name === undefined ? undefined : tokens.get(name);
    if (token) found.push(recognised(position, node.text, node.text, asToken(token.name), token, true));
    else found.push(...inWords(node, position, values));
  });
  return found;
}

/** The document with recognised words as tokens; sources are left behind. */
export function withTokens(doc: Doc, accepted: Recognised[]): Doc {
  return mapInlines(doc, (inline, position) =>
    inline.type === "text" ? split(inline, position, accepted) : [inline],
  );
}

/** Values shorter than this are like too many words. */
const SHORTEST = 2;
const GROUPS = tokenGroups.filter((group) => group !== "agent");

interface Written {
  words: string;
  token: TokenNode;
  of: Token;
}

function writtenValues(context: Context, tokens: ReadonlyMap<string, Token>, style: Style): Written[] {
  const values: Written[] = [];
  for (const token of tokens.values()) {
    if (!(GROUPS as readonly string[]).includes(token.group) || UNTELLING.has(token.name) || token.ordinary)
      continue;
    const value = lookUp(context, token.name, token.type);
    if (value.kind === "missing") continue;
    const add = (words: string, node: TokenNode) => {
      if (words.length >= SHORTEST && !values.some((one) => one.words === words))
        values.push({ words, token: node, of: token });
    };
    if (token.type === "datetime" || token.type === "date") {
      for (const node of dateForms(token)) {
        const written = formatValue(value, node.attrs, style);
        if (written.kind === "text") add(written.text, node);
      }
      continue;
    }
    // A bare number says too little to be known again.
    if (token.type === "integer" || token.type === "number" || token.type === "yes_no") continue;
    const usual = formatValue(value, asToken(token.name).attrs, style);
    if (usual.kind === "text") add(usual.text, asToken(token.name));
    if (token.type !== "money") add(plain(value.value), asToken(token.name));
  }
  return values.sort((a, b) => b.words.length - a.words.length);
}

/** Values that are ordinary words. */
const UNTELLING = new Set([
  "case.channel",
  "case.language",
  "case.topic",
  "customer.language",
  "organisation.kind",
]);

function dateForms(token: Token): TokenNode[] {
  const node = (fn: string | null, options: Record<string, string> = {}): TokenNode => ({
    type: "token",
    attrs: { name: token.name, fn, options },
  });
  const dates = ["long", "medium", "short"].map((length) => node("date", { length }));
  if (token.type === "date") return dates;
  return [node(null), ...dates, node("time", { precision: "minute" })];
}

function asToken(name: string): TokenNode {
  return { type: "token", attrs: { name, fn: null, options: {} } };
}

function recognised(
  from: number,
  words: string,
  text: string,
  token: TokenNode,
  of: Token,
  certain: boolean,
): Recognised {
  return { from, to: from + text.length, words, token, label: of.label, certain };
}

const WORD = /[\p{L}\p{M}\p{N}]/u;

function inWords({ text }: TextNode, position: number, values: Written[]): Recognised[] {
  const found: Recognised[] = [];
  const taken: [number, number][] = [];
  for (const { words, token, of } of values) {
    for (let at = text.indexOf(words); at >= 0; at = text.indexOf(words, at + words.length)) {
      const end = at + words.length;
      if (WORD.test(text.slice(Math.max(0, at - 1), at)) || WORD.test(text.slice(end, end + 1))) continue;
      if (taken.some(([from, to]) => at < to && end > from)) continue;
      taken.push([at, end]);
      found.push(recognised(position + at, words, words, token, of, false));
    }
  }
  return found.sort((a, b) => a.from - b.from);
}

function split(node: TextNode, at: number, accepted: Recognised[]): Inline[] {
  const { source: _source, ...plainNode } = node;
  const inside = accepted
    .filter((one) => one.from >= at && one.to <= at + node.text.length)
    .sort((a, b) => a.from - b.from);
  const parts: Inline[] = [];
  let from = 0;
  const words = (to: number) => {
    if (to > from) parts.push({ ...plainNode, text: node.text.slice(from, to) });
  };
  for (const one of inside) {
    words(one.from - at);
    parts.push(node.marks ? { ...one.token, marks: node.marks } : one.token);
    from = one.to - at;
  }
  words(node.text.length);
  return parts;
}
