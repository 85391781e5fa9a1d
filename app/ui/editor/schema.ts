import { InputRule, Mark, Node, type Attributes, type AnyExtension } from "@tiptap/core";
import { Blockquote } from "@tiptap/extension-blockquote";
import { Bold } from "@tiptap/extension-bold";
import { HardBreak } from "@tiptap/extension-hard-break";
import { Heading } from "@tiptap/extension-heading";
import { Highlight } from "@tiptap/extension-highlight";
import { HorizontalRule } from "@tiptap/extension-horizontal-rule";
import { Italic } from "@tiptap/extension-italic";
import { BulletList } from "@tiptap/extension-list/bullet-list";
import { ListItem } from "@tiptap/extension-list/item";
import { OrderedList } from "@tiptap/extension-list/ordered-list";
import { Paragraph } from "@tiptap/extension-paragraph";
import { Table, TableCell, TableHeader, TableRow } from "@tiptap/extension-table";
import { Strike } from "@tiptap/extension-strike";
import { Text } from "@tiptap/extension-text";
import { Underline } from "@tiptap/extension-underline";
import { marks, nodes, type MarkName, type NodeName, type Shape } from "#core/document/definition";
import { safeHref } from "#core/document/links";

/**
 * The editor's schema, made from the definition of a document in `core`: names, content, groups and
 * attributes come from there; from Tiptap come commands, shortcuts and typing rules.
 */

/** Attributes travel through copy and paste as JSON in data attributes. */
function attributesOf(shape: Shape): Attributes {
  return Object.fromEntries(
    Object.entries(shape).map(([key, schema]) => {
      const usual = schema.safeParse(undefined);
      return [
        key,
        {
          default: usual.success ? usual.data : null,
          parseHTML: (element: HTMLElement) => {
            const text = element.getAttribute(`data-${key}`);
            const parsed = schema.safeParse(text === null ? undefined : safeJson(text));
            return parsed.success ? parsed.data : null;
          },
          renderHTML: (attributes: Record<string, unknown>) =>
            attributes[key] === undefined ? {} : { [`data-${key}`]: JSON.stringify(attributes[key]) },
        },
      ];
    }),
  );
}

function safeJson(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    return undefined; // Pasted from elsewhere: the attribute takes its default.
  }
}

interface Defined {
  name: string;
  content?: string;
  group?: string;
  inline?: boolean;
  addAttributes: () => Attributes;
}

export function definedNode(name: NodeName): Defined {
  const definition: { content?: string; group?: string; attrs: Shape } = nodes[name];
  return {
    name,
    ...(definition.content === undefined ? {} : { content: definition.content }),
    ...(definition.group === undefined ? {} : { group: definition.group }),
    ...(definition.group === "inline" ? { inline: true } : {}),
    addAttributes: () => attributesOf(definition.attrs),
  };
}

function definedMark(name: MarkName): { name: string; addAttributes: () => Attributes } {
  return { name, addAttributes: () => attributesOf(marks[name]) };
}

/** A picture that travels with the letter, shown from the reply's files. */
const Picture = Node.create({
  ...definedNode("image"),
  atom: true,
  parseHTML: () => [{ tag: "img[data-attachment]" }],
  renderHTML: ({ node, HTMLAttributes }) => {
    const { attachment, alt, width } = node.attrs as {
      attachment: string;
      alt: string;
      width: number | null;
    };
    return [
      "img",
      {
        ...HTMLAttributes,
        src: `/library-files/${encodeURIComponent(attachment)}`,
        // What has no words yet is a picture without a name, not an ornament.
        ...(alt === "" ? {} : { alt }),
        ...(width === null ? {} : { width }),
      },
    ];
  },
});

const Link = Mark.create({
  ...definedMark("link"),
  inclusive: false,
  addAttributes: () => ({
    href: {
      default: "",
      parseHTML: (element: HTMLElement) => element.getAttribute("href"),
      renderHTML: ({ href }: { href: string }) => ({
        href: safeHref(href) ?? "#",
        title: href,
        rel: "noopener noreferrer",
      }),
    },
  }),
  parseHTML: () => [{ tag: "a[href]" }],
  renderHTML: ({ HTMLAttributes }) => ["a", HTMLAttributes, 0],
});

const PassageMark = Mark.create({
  ...definedMark("passage"),
  parseHTML: () => [{ tag: "span[data-passages]" }],
  renderHTML: ({ HTMLAttributes }) => ["span", HTMLAttributes, 0],
});

/** A brace that is meant as one: typed as `\{` or `\}`. */
const LiteralMark = Mark.create({
  ...definedMark("literal"),
  inclusive: false,
  parseHTML: () => [{ tag: "span[data-literal]" }],
  renderHTML: ({ HTMLAttributes }) => ["span", { ...HTMLAttributes, "data-literal": "" }, 0],
  addInputRules() {
    return [
      new InputRule({
        find: /\\([{}])$/,
        handler: ({ state, range, match }) => {
          const brace = state.schema.text(match[1] ?? "", [this.type.create()]);
          state.tr.replaceWith(range.from, range.to, brace).removeStoredMark(this.type);
        },
      }),
    ];
  },
});

/** Tables with their commands, shown as plain tables. */
const tables: AnyExtension[] = [
  Table.extend({
    ...definedNode("table"),
    renderHTML: ({ HTMLAttributes }) => ["table", HTMLAttributes, ["tbody", 0]],
    addNodeView: () => null,
  }),
  TableRow.extend(definedNode("tableRow")),
  TableCell.extend(definedNode("tableCell")),
  TableHeader.extend(definedNode("tableHeader")),
];

/** Nodes and marks of a document, without its top node, token and blank: those are shown in their own way. */
export const documentExtensions: AnyExtension[] = [
  Text,
  Paragraph.extend(definedNode("paragraph")),
  Heading.extend(definedNode("heading")).configure({ levels: [1, 2, 3] }),
  BulletList.extend(definedNode("bulletList")),
  OrderedList.extend(definedNode("orderedList")),
  ListItem.extend(definedNode("listItem")),
  Blockquote.extend(definedNode("blockquote")),
  HorizontalRule.extend(definedNode("horizontalRule")),
  HardBreak.extend(definedNode("hardBreak")),
  ...tables,
  Picture,
  Bold,
  Italic,
  Underline,
  Strike,
  Highlight,
  Link,
  PassageMark,
  LiteralMark,
];
