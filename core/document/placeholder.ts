import type { BlankNode, PlaceholderAttrs, TokenNode } from "./types";

/**
 * The text form of a token or a blank: a MessageFormat 2 placeholder.
 * Options are written in alphabetical order, so that equal placeholders have equal texts.
 */
export function placeholderText(node: TokenNode | BlankNode): string {
  const name = node.type === "blank" ? `blank.${node.attrs.name}` : node.attrs.name;
  return `{$${name}${annotation(node.attrs)}}`;
}

/** The function and its options as they stand behind the name: ` :date length=long`, or nothing. */
function annotation({ fn, options }: PlaceholderAttrs): string {
  const names = Object.keys(options).sort();
  if (fn === null && names.length === 0) return "";
  return ` :${fn ?? "text"}${names.map((name) => ` ${name}=${literal(options[name] ?? "")}`).join("")}`;
}

/** A MessageFormat 2 literal: bare where the syntax allows it, else between bars. */
function literal(value: string): string {
  if (/^[A-Za-z0-9_.+-]+$/.test(value)) return value;
  return `|${value.replaceAll("\\", "\\\\").replaceAll("|", "\\|")}|`;
}
