import type { PassageRef } from "./definition";

/** Where words of a letter came from: positions count as ProseMirror's do, within the slip's document. */
export interface Source {
  /** Id of the slip, or "signature" and the like for what surrounds the slips. */
  slip: string;
  from: number;
  to: number;
  kind: "own" | "token" | "blank";
  /** Full name of the token or blank. */
  name?: string;
  /** The words stand for a value that is not there. */
  missing?: true;
  /** The words are braces that were meant as braces. */
  literal?: true;
}

export type Mark =
  | { type: "bold" | "italic" | "underline" | "strike" | "highlight" | "literal" }
  | { type: "link"; attrs: { href: string } }
  | { type: "passage"; attrs: { passages: PassageRef[] } };

/** A run of words. `source` stands only in composed documents. */
export interface TextNode {
  type: "text";
  text: string;
  marks?: Mark[];
  source?: Source;
}

interface HardBreak {
  type: "hardBreak";
  marks?: Mark[];
}

interface ImageNode {
  type: "image";
  attrs: { attachment: string; alt: string; width: number | null };
  marks?: Mark[];
}

export interface PlaceholderAttrs {
  /** `group.key` for a token; for a blank the name without its `blank.` prefix. */
  name: string;
  /** MessageFormat 2 function name, without the colon. */
  fn: string | null;
  options: Record<string, string>;
}

export interface TokenNode {
  type: "token";
  attrs: PlaceholderAttrs;
  marks?: Mark[];
}

export interface BlankNode {
  type: "blank";
  attrs: PlaceholderAttrs;
  marks?: Mark[];
}

export type Inline = TextNode | HardBreak | ImageNode | TokenNode | BlankNode;

interface Passable {
  passages: PassageRef[];
}

export interface Paragraph {
  type: "paragraph";
  attrs: Passable;
  content: Inline[];
}

interface Heading {
  type: "heading";
  attrs: Passable & { level: number };
  content: Inline[];
}

export interface ListItem {
  type: "listItem";
  attrs: Passable;
  content: Block[];
}

interface BulletList {
  type: "bulletList";
  attrs: Passable;
  content: ListItem[];
}

interface OrderedList {
  type: "orderedList";
  attrs: Passable & { start: number };
  content: ListItem[];
}

export interface TableCell {
  type: "tableCell" | "tableHeader";
  attrs: { colspan: number; rowspan: number; colwidth: number[] | null };
  content: Block[];
}

export interface TableRow {
  type: "tableRow";
  attrs: Passable;
  content: TableCell[];
}

export interface Table {
  type: "table";
  attrs: Passable;
  content: TableRow[];
}

interface Blockquote {
  type: "blockquote";
  attrs: Passable;
  content: Block[];
}

interface HorizontalRule {
  type: "horizontalRule";
  attrs: Passable;
}

export type Block = Paragraph | Heading | BulletList | OrderedList | Table | Blockquote | HorizontalRule;

/** Channels that a reply may have a text of its own for; else the common one is made plain. */
export const textChannels = ["chat", "sms"] as const;
export type TextChannel = (typeof textChannels)[number];

/** The texts of a reply in one language: the common one, and those that channels have of their own. */
export interface Texts {
  document: Doc;
  texts?: Partial<Record<TextChannel, Doc>> | undefined;
}

/** A reply's document: at least one block. */
export interface Doc {
  type: "doc";
  content: Block[];
}

export type AnyNode = Doc | Block | ListItem | TableRow | TableCell | Inline;
