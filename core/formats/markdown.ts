import type { ContainerDirective, LeafDirective, TextDirective } from "mdast-util-directive";
import type {
  ListItem as MdListItem,
  Nodes,
  PhrasingContent,
  Root,
  RootContent,
  Table as MdTable,
  TableRow as MdTableRow,
} from "mdast";
import remarkDirective from "remark-directive";
import remarkGfm from "remark-gfm";
import remarkParse from "remark-parse";
import { unified, type Processor } from "unified";
import type { PassageRef } from "../document/definition";
import { joinTexts } from "../document/inlines";
import { emptyDocument } from "../document/schema";
import type {
  Block,
  Doc,
  Inline,
  ListItem,
  Mark,
  Paragraph,
  Table,
  TableCell,
  TableRow,
} from "../document/types";
import { readPlaceholder } from "../tokens/text-form";
import { placeholderFromMarkdown, placeholderSyntax } from "./placeholder-syntax";
import { t } from "../words/library";

/** What could not be read, with its place in the text: lines and columns count from 1. */
export interface MarkdownProblem {
  message: string;
  line: number;
  column: number;
}

/**
 * Reads the Markdown form of a reply: CommonMark with GFM tables, MessageFormat 2 placeholders and
 * the directives `:::passage{#id}`, `:passage[…]{#id}`, `:row{#id}`, `:item{#id}`, `:u[…]` and `:mark[…]`.
 * What is no such directive stays as it was typed. A paragraph of one no-break space is an empty one,
 * a table whose heading row is empty has none, `<br>` breaks a line in a cell, and a picture's title
 * may say its width, as in `![alt](file "width=240")`. Nothing is lost: what cannot be read stays as text.
 */
export function readMarkdown(source: string): { doc: Doc; problems: MarkdownProblem[] } {
  const reader = new Reader(source);
  const blocks = reader.blocks(parser.parse(source).children, []);
  return {
    doc: blocks.length > 0 ? { type: "doc", content: blocks } : emptyDocument(),
    problems: reader.problems,
  };
}

function placeholders(this: Processor): void {
  const data = this.data();
  (data.micromarkExtensions ??= []).push(placeholderSyntax);
  (data.fromMarkdownExtensions ??= []).push(placeholderFromMarkdown);
}

const parser: { parse(source: string): Root } = unified()
  .use(remarkParse)
  .use(remarkGfm, { singleTilde: false })
  .use(remarkDirective)
  .use(placeholders)
  .freeze();

type Directive = ContainerDirective | LeafDirective | TextDirective;

class Reader {
  readonly problems: MarkdownProblem[] = [];
  readonly #source: string;

  constructor(source: string) {
    this.#source = source;
  }

  blocks(nodes: RootContent[], passages: PassageRef[]): Block[] {
    return nodes.flatMap((node) => this.#block(node, passages));
  }

  #block(node: RootContent, passages: PassageRef[]): Block[] {
    const attrs = { passages };
    switch (node.type) {
      case "paragraph":
        return [{ type: "paragraph", attrs, content: withoutGap(this.#inlines(node.children, [])) }];
      case "heading":
        return [
          {
            type: "heading",
            attrs: { level: Math.min(node.depth, 3), passages },
            content: this.#inlines(node.children, []),
          },
        ];
      case "list": {
        const content = node.children.map((item) => this.#item(item));
        return node.ordered
          ? [{ type: "orderedList", attrs: { start: node.start ?? 1, passages }, content }]
          : [{ type: "bulletList", attrs, content }];
      }
      case "table":
        return [this.#table(node, passages)];
      case "blockquote": {
        const content = this.blocks(node.children, []);
        return content.length > 0 ? [{ type: "blockquote", attrs, content }] : [];
      }
      case "thematicBreak":
        return [{ type: "horizontalRule", attrs }];
      case "code":
        return [paragraph(lines(node.value), passages)];
      case "html":
        this.#report(node, t("htmlStaysAsText"));
        return [paragraph(lines(node.value), passages)];
      case "containerDirective": {
        if (node.name !== "passage") return this.#literalBlock(node, passages);
        const ref = this.#ref(node);
        return ref ? this.blocks(node.children, [...passages, ref]) : this.#literalBlock(node, passages);
      }
      case "leafDirective":
        return this.#literalBlock(node, passages);
      case "definition":
      case "footnoteDefinition":
        return this.#literalBlock(node, passages);
      default:
        return [paragraph(this.#inline(node as PhrasingContent, []), passages)];
    }
  }

  /** An item that holds nothing but one marked passage is that passage. */
  #item(item: MdListItem): ListItem {
    const passages: PassageRef[] = [];
    const [lead, ...rest] = item.children;
    const children: RootContent[] =
      lead?.type === "paragraph"
        ? [{ ...lead, children: this.#leadingRefs("item", lead.children, passages) }, ...rest]
        : item.children;
    const blocks = this.blocks(children, []);
    const content: Block[] = blocks[0]?.type === "paragraph" ? blocks : [paragraph([], []), ...blocks];
    if (passages.length > 0) return { type: "listItem", attrs: { passages }, content };
    const [only] = content;
    if (content.length === 1 && only?.type === "paragraph" && only.content.length > 0) {
      const whole = commonPassages(only.content);
      if (whole.length > 0) {
        return {
          type: "listItem",
          attrs: { passages: whole },
          content: [paragraph(only.content.map(withoutPassages), [])],
        };
      }
    }
    return { type: "listItem", attrs: { passages: [] }, content };
  }

  #table(table: MdTable, passages: PassageRef[]): Table {
    const rows = table.children.map((row, index) => this.#row(row, index === 0));
    const [head, ...body] = rows;
    const headless = head?.attrs.passages.length === 0 && body.length > 0 && head.content.every(isEmptyCell);
    return { type: "table", attrs: { passages }, content: headless ? body : rows };
  }

  #row(row: MdTableRow, heading: boolean): TableRow {
    const passages: PassageRef[] = [];
    const cells = row.children.map((cell, index): TableCell => {
      const children = index === 0 ? this.#leadingRefs("row", cell.children, passages) : cell.children;
      const content: Block[] = [paragraph(this.#inlines(children, []), [])];
      return {
        type: heading ? "tableHeader" : "tableCell",
        attrs: { colspan: 1, rowspan: 1, colwidth: null },
        content,
      };
    });
    return { type: "tableRow", attrs: { passages }, content: cells };
  }

  /** Takes the `:row{#id}` or `:item{#id}` marks from the start of a row's first cell or of an item. */
  #leadingRefs(name: "row" | "item", nodes: PhrasingContent[], passages: PassageRef[]): PhrasingContent[] {
    const children = [...nodes];
    for (;;) {
      const [first] = children;
      if (first?.type !== "textDirective" || first.name !== name) return children;
      const ref = this.#ref(first);
      if (ref) passages.push(ref);
      children.shift();
      const next = children[0];
      if (next?.type === "text") children[0] = { ...next, value: next.value.trimStart() };
      if (children[0]?.type === "text" && children[0].value === "") children.shift();
    }
  }

  #inlines(nodes: PhrasingContent[], marks: Mark[]): Inline[] {
    return joinTexts(nodes.flatMap((node) => this.#inline(node, marks)));
  }

  #inline(node: PhrasingContent, marks: Mark[]): Inline[] {
    switch (node.type) {
      case "text":
        return text(node.value.replace(/\s*\n\s*/g, " "), marks);
      case "literalBrace":
        return text(node.value, [...marks, { type: "literal" }]);
      case "placeholder": {
        const read = readPlaceholder(node.value);
        if (read.ok) return [marks.length > 0 ? { ...read.node, marks } : read.node];
        this.#report(node, read.message);
        return text(node.value, marks);
      }
      case "strong":
        return this.#inlines(node.children, [...marks, { type: "bold" }]);
      case "emphasis":
        return this.#inlines(node.children, [...marks, { type: "italic" }]);
      case "delete":
        return this.#inlines(node.children, [...marks, { type: "strike" }]);
      case "link":
        return this.#inlines(node.children, [...marks, { type: "link", attrs: { href: node.url } }]);
      case "break":
        return [marks.length > 0 ? { type: "hardBreak", marks } : { type: "hardBreak" }];
      case "image":
        return [
          {
            type: "image",
            attrs: { attachment: node.url, alt: node.alt ?? "", width: this.#width(node.title) },
            ...(marks.length > 0 ? { marks } : {}),
          },
        ];
      case "inlineCode":
        return text(node.value, marks);
      case "textDirective":
        return this.#directive(node, marks);
      case "html":
        if (!/^<br\s*\/?>$/i.test(node.value)) return text(this.#slice(node), marks);
        return [marks.length > 0 ? { type: "hardBreak", marks } : { type: "hardBreak" }];
      default:
        return text(this.#slice(node), marks);
    }
  }

  #directive(node: TextDirective, marks: Mark[]): Inline[] {
    switch (node.name) {
      case "passage": {
        const ref = this.#ref(node);
        if (!ref) return text(this.#slice(node), marks);
        const outer = marks.flatMap((mark) => (mark.type === "passage" ? mark.attrs.passages : []));
        const others = marks.filter((mark) => mark.type !== "passage");
        return this.#inlines(node.children, [
          ...others,
          { type: "passage", attrs: { passages: [...outer, ref] } },
        ]);
      }
      case "u":
        if (node.children.length === 0) return text(this.#slice(node), marks);
        return this.#inlines(node.children, [...marks, { type: "underline" }]);
      case "mark":
        if (node.children.length === 0) return text(this.#slice(node), marks);
        return this.#inlines(node.children, [...marks, { type: "highlight" }]);
      case "row":
        this.#report(node, t("rowStandsAtTheStart"));
        return text(this.#slice(node), marks);
      case "item":
        this.#report(node, t("itemStandsAtTheStart"));
        return text(this.#slice(node), marks);
      default:
        return text(this.#slice(node), marks);
    }
  }

  #width(title: string | null | undefined): number | null {
    const width = Number(/^width=(\d{1,4})$/.exec(title ?? "")?.[1]);
    return width >= 1 && width <= 2000 ? width : null;
  }

  #ref(node: Directive): PassageRef | null {
    const id = node.attributes?.id;
    if (!id) {
      this.#report(node, t("aPassageNamesItsCondition"));
      return null;
    }
    return { id, otherwise: Object.hasOwn(node.attributes ?? {}, "otherwise") };
  }

  #literalBlock(node: RootContent, passages: PassageRef[]): Block[] {
    return [paragraph(lines(this.#slice(node)), passages)];
  }

  #slice(node: Nodes): string {
    return this.#source.slice(node.position?.start.offset, node.position?.end.offset);
  }

  #report(node: Nodes, message: string): void {
    this.problems.push({
      message,
      line: node.position?.start.line ?? 1,
      column: node.position?.start.column ?? 1,
    });
  }
}

function paragraph(content: Inline[], passages: PassageRef[]): Paragraph {
  return { type: "paragraph", attrs: { passages }, content };
}

function text(words: string, marks: Mark[]): Inline[] {
  if (words === "") return [];
  return [marks.length > 0 ? { type: "text", text: words, marks } : { type: "text", text: words }];
}

function lines(source: string): Inline[] {
  return source
    .split("\n")
    .flatMap((line, index): Inline[] => [
      ...(index > 0 ? [{ type: "hardBreak" as const }] : []),
      ...text(line, []),
    ]);
}

const GAP = "\u00a0";

function withoutGap(inlines: Inline[]): Inline[] {
  const [only] = inlines;
  return inlines.length === 1 && only?.type === "text" && only.text === GAP && !only.marks ? [] : inlines;
}

function isEmptyCell(cell: TableCell): boolean {
  return cell.content.every((block) => block.type === "paragraph" && block.content.length === 0);
}

function passageMark(inline: Inline): PassageRef[] {
  return (inline.marks ?? []).flatMap((mark) => (mark.type === "passage" ? mark.attrs.passages : []));
}

function commonPassages(inlines: Inline[]): PassageRef[] {
  const [first = [], ...rest] = inlines.map(passageMark);
  const same = rest.every((refs) => JSON.stringify(refs) === JSON.stringify(first));
  return same ? first : [];
}

function withoutPassages(inline: Inline): Inline {
  const kept = (inline.marks ?? []).filter((mark) => mark.type !== "passage");
  const { marks: _marks, ...bare } = inline;
  return kept.length > 0 ? { ...bare, marks: kept } : bare;
}
