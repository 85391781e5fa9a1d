import * as z from "zod/mini";

/** A text of some length, whole numbers in a range: said often below. */
function words(min: number, max: number) {
  return z.string().check(z.minLength(min), z.maxLength(max));
}

function whole(min: number, max: number) {
  return z.int().check(z.minimum(min), z.maximum(max));
}

/**
 * One condition that a piece of a document stands under: the passage's id, and whether it stands
 * when the condition does *not* hold.
 */
export const passageRef = z.strictObject({
  id: words(1, 80),
  otherwise: z._default(z.boolean(), false),
});
export type PassageRef = z.infer<typeof passageRef>;

/** Options of a formatting function: MessageFormat 2 option names to literal values. */
const formatOptions = z._default(z.record(words(0, 40), words(0, 400)), {});

const passages = z._default(z.array(passageRef).check(z.maxLength(20)), []);

/** What an inline placeholder carries: the name it reads and how the value is to be formatted. */
const placeholder = {
  name: words(1, 120),
  fn: z._default(z.nullable(words(0, 40)), null),
  options: formatOptions,
};

const cell = {
  colspan: z._default(whole(1, 50), 1),
  rowspan: z._default(whole(1, 200), 1),
  colwidth: z._default(z.nullable(z.array(whole(1, 10_000))), null),
};

/** Attributes by name, each with its schema. */
export type Shape = Readonly<Record<string, z.ZodMiniType>>;

interface NodeDefinition {
  /** ProseMirror content expression; absent for leaves. */
  content?: string;
  /** ProseMirror group. */
  group?: "block" | "inline";
  attrs: Shape;
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
    attrs: { level: z._default(whole(1, 3), 2), passages },
  },
  bulletList: { content: "listItem+", group: "block", attrs: { passages } },
  orderedList: {
    content: "listItem+",
    group: "block",
    attrs: { start: z._default(whole(0, 100_000), 1), passages },
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
      attachment: words(1, 200),
      alt: z._default(words(0, 1000), ""),
      width: z._default(z.nullable(whole(1, 2000)), null),
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
  /** A brace that is meant as one, and begins no placeholder. */
  literal: {},
  link: { href: words(1, 2000) },
  passage: { passages: z.array(passageRef).check(z.minLength(1), z.maxLength(20)) },
} as const satisfies Record<string, Shape>;

export type NodeName = keyof typeof nodes;
export type MarkName = keyof typeof marks;

export function isNodeName(name: string): name is NodeName {
  return Object.hasOwn(nodes, name);
}

export function isMarkName(name: string): name is MarkName {
  return Object.hasOwn(marks, name);
}
