import { z } from "zod";

/**
 * One condition that a piece of a document stands under: the passage's id, and whether it stands
 * when the condition does *not* hold.
 */
export const passageRef = z.strictObject({
  id: z.string().min(1).max(80),
  otherwise: z.boolean().default(false),
});
export type PassageRef = z.infer<typeof passageRef>;

/** Options of a formatting function: MessageFormat 2 option names to literal values. */
const formatOptions = z.record(z.string().max(40), z.string().max(400)).default({});

const passages = z.array(passageRef).max(20).default([]);

/** What an inline placeholder carries: the name it reads and how the value is to be formatted. */
const placeholder = {
  name: z.string().min(1).max(120),
  fn: z.string().max(40).nullable().default(null),
  options: formatOptions,
};

const cell = {
  colspan: z.number().int().min(1).max(50).default(1),
  rowspan: z.number().int().min(1).max(200).default(1),
  colwidth: z.array(z.number().int().positive()).nullable().default(null),
};

interface NodeDefinition {
  /** ProseMirror content expression; absent for leaves. */
  content?: string;
  /** ProseMirror group. */
  group?: "block" | "inline";
  attrs: Readonly<Record<string, z.ZodType>>;
}

/**
 * The nodes of a reply's document. The Zod schema (`schema.ts`) and the editor's extensions are
 * both made from this table, so that what can be typed can be stored and the other way round.
 */
export const nodes = {
  doc: { content: "block+", attrs: {} },
  paragraph: { content: "inline*", group: "block", attrs: { passages } },
  heading: {
    content: "inline*",
    group: "block",
    attrs: { level: z.number().int().min(1).max(3).default(2), passages },
  },
  bulletList: { content: "listItem+", group: "block", attrs: { passages } },
  orderedList: {
    content: "listItem+",
    group: "block",
    attrs: { start: z.number().int().min(0).max(100_000).default(1), passages },
  },
  listItem: { content: "paragraph block*", attrs: { passages } },
  table: { content: "tableRow+", group: "block", attrs: { passages } },
  tableRow: { content: "(tableCell | tableHeader)*", attrs: { passages } },
  tableCell: { content: "block+", attrs: cell },
  tableHeader: { content: "block+", attrs: cell },
  blockquote: { content: "block+", group: "block", attrs: { passages } },
  horizontalRule: { group: "block", attrs: { passages } },
  text: { group: "inline", attrs: {} },
  hardBreak: { group: "inline", attrs: {} },
  image: {
    group: "inline",
    attrs: {
      /** Id of an attachment, never an address: pictures travel with the letter. */
      attachment: z.string().min(1).max(200),
      alt: z.string().max(1000).default(""),
      width: z.number().int().min(1).max(2000).nullable().default(null),
    },
  },
  token: { group: "inline", attrs: placeholder },
  blank: { group: "inline", attrs: placeholder },
} as const satisfies Record<string, NodeDefinition>;

/** The marks of a reply's document. A highlight has no colour of its own. */
export const marks = {
  bold: {},
  italic: {},
  underline: {},
  strike: {},
  highlight: {},
  link: { href: z.string().min(1).max(2000) },
  passage: { passages: z.array(passageRef).min(1).max(20) },
} as const satisfies Record<string, Readonly<Record<string, z.ZodType>>>;

export type NodeName = keyof typeof nodes;
export type MarkName = keyof typeof marks;

export function isNodeName(name: string): name is NodeName {
  return Object.hasOwn(nodes, name);
}

export function isMarkName(name: string): name is MarkName {
  return Object.hasOwn(marks, name);
}
