import { directiveToMarkdown, type TextDirective } from "mdast-util-directive";
import { gfmToMarkdown } from "mdast-util-gfm";
import { toMarkdown, type Handle, type Options, type Unsafe } from "mdast-util-to-markdown";
import type { BlockContent, DefinitionContent, PhrasingContent, Root, TableRow as MdRow } from "mdast";
import type { PassageRef } from "../document/definition";
import { joinTexts } from "../document/inlines";
import { placeholderText } from "../document/placeholder";
import type { Block, Doc, Inline, ListItem, Mark, Table, TableCell } from "../document/types";
import { t } from "../words/library";

/**
 * Writes a document in the Markdown form that `readMarkdown` reads. Equal documents have equal texts, and
 * what is read from the text and written again is the same text.
 * @returns the text, ending in a line end, and what the form cannot hold, in words; the text has the nearest to it
 */
export function writeMarkdown(doc: Doc): { text: string; losses: string[] } {
  const writer = new Writer();
  const root: Root = { type: "root", children: writer.blocks(doc.content) };
  return { text: toMarkdown(root, options), losses: [...writer.losses] };
}

type Container = BlockContent | DefinitionContent;

class Writer {
  readonly losses = new Set<string>();

  /** Neighbours under the same passage share one container. */
  blocks(blocks: Block[], depth = 0): Container[] {
    const written: Container[] = [];
    for (let index = 0; index < blocks.length; index += 1) {
      const block = blocks[index];
      if (!block) continue;
      const ref = block.attrs.passages[depth];
      if (!ref) {
        written.push(this.#block(block));
        continue;
      }
      let end = index + 1;
      while (end < blocks.length && sameRef(blocks[end]?.attrs.passages[depth], ref)) end += 1;
      written.push({
        type: "containerDirective",
        name: "passage",
        attributes: attributesOf(ref),
        children: this.blocks(blocks.slice(index, end), depth + 1),
      });
      index = end - 1;
    }
    return written;
  }

  #block(block: Block): Container {
    switch (block.type) {
      case "paragraph":
        return {
          type: "paragraph",
          children: block.content.length === 0 ? [GAP] : this.#inlines(block.content),
        };
      case "heading":
        return {
          type: "heading",
          depth: block.attrs.level === 1 ? 1 : block.attrs.level === 2 ? 2 : 3,
          children: this.#inlines(block.content, true),
        };
      case "bulletList":
      case "orderedList":
        return {
          type: "list",
          ordered: block.type === "orderedList",
          start: block.type === "orderedList" ? block.attrs.start : null,
          spread: false,
          children: block.content.map((item) => ({
            type: "listItem",
            spread: false,
            children: this.#item(item),
          })),
        };
      case "blockquote":
        return { type: "blockquote", children: this.blocks(block.content) };
      case "horizontalRule":
        return { type: "thematicBreak" };
      case "table":
        return this.#table(block);
    }
  }

  #item(item: ListItem): Container[] {
    const { passages } = item.attrs;
    const children = this.blocks(item.content);
    const [lead, ...rest] = children;
    const [only] = item.content;
    if (item.content.length === 1 && only?.type === "paragraph" && only.content.length === 0) {
      return passages.length === 0 ? [] : [{ type: "paragraph", children: passages.map(leading("item")) }];
    }
    if (passages.length === 0 || lead?.type !== "paragraph") return children;
    const wrapped =
      rest.length === 0 && only?.type === "paragraph" && only.content.every((one) => !marked(one));
    const words: PhrasingContent[] = wrapped
      ? passages.reduceRight(
          (inner: PhrasingContent[], ref) => [
            { type: "textDirective", name: "passage", attributes: attributesOf(ref), children: inner },
          ],
          lead.children,
        )
      : [...passages.map(leading("item")), { type: "text", value: " " }, ...lead.children];
    return [{ ...lead, children: words }, ...rest];
  }

  #table(table: Table): Container {
    const headed = table.content[0]?.content.every((cell) => cell.type === "tableHeader") ?? false;
    const rows = table.content.map((row, index): MdRow => {
      const cells = row.content.map((cell): MdRow["children"][number] => ({
        type: "tableCell",
        children: this.#cell(cell),
      }));
      if (row.content.some((cell) => (cell.type === "tableHeader") !== (headed && index === 0)))
        this.losses.add(t("headingCellsBecomeOrdinary"));
      const [first, ...others] = cells;
      if (row.attrs.passages.length === 0 || !first) return { type: "tableRow", children: cells };
      const space: PhrasingContent[] = first.children.length > 0 ? [{ type: "text", value: " " }] : [];
      return {
        type: "tableRow",
        children: [
          { ...first, children: [...row.attrs.passages.map(leading("row")), ...space, ...first.children] },
          ...others,
        ],
      };
    });
    const width = Math.max(1, ...rows.map((row) => row.children.length));
    if (!headed) {
      rows.unshift({
        type: "tableRow",
        children: Array.from({ length: width }, () => ({ type: "tableCell", children: [] })),
      });
    }
    return { type: "table", children: rows };
  }

  #cell(cell: TableCell): PhrasingContent[] {
    if (cell.attrs.colspan > 1 || cell.attrs.rowspan > 1) this.losses.add(t("spanningCellsBecomeSingle"));
    if (cell.content.length > 1) this.losses.add(t("paragraphsOfACellBecomeLines"));
    return cell.content.flatMap((block, index): PhrasingContent[] => [
      ...(index > 0 ? [BREAK_IN_CELL] : []),
      ...this.#cellBlock(block),
    ]);
  }

  #cellBlock(block: Block): PhrasingContent[] {
    if (block.type === "paragraph") {
      if (block.attrs.passages.length > 0) this.losses.add(t("aParagraphsPassageBecomesOfWords"));
      const under = block.attrs.passages;
      const content = under.length === 0 ? block.content : block.content.map((one) => withRefs(one, under));
      return this.#inlines(content, true);
    }
    this.losses.add(t("blocksOfACellBecomeLines"));
    if (block.type === "heading") return this.#inlines(block.content, true);
    if (block.type === "horizontalRule") return [];
    const inner: Block[] =
      block.type === "blockquote"
        ? block.content
        : block.type === "table"
          ? block.content.flatMap((row) => row.content.flatMap((cell) => cell.content))
          : block.content.flatMap((item) => item.content);
    return inner.flatMap((one, index): PhrasingContent[] => [
      ...(index > 0 ? [BREAK_IN_CELL] : []),
      ...this.#cellBlock(one),
    ]);
  }

  /** Runs of inlines that share their outermost mark are written inside it once. */
  #inlines(inlines: Inline[], oneLine = false): PhrasingContent[] {
    return this.#run(
      joinTexts(inlines).map((inline) => ({ inline, marks: [...(inline.marks ?? [])].sort(byOrder) })),
      oneLine,
    );
  }

  #run(run: Run[], oneLine: boolean): PhrasingContent[] {
    const written: PhrasingContent[] = [];
    for (let index = 0; index < run.length; index += 1) {
      const item = run[index];
      if (!item) continue;
      const [mark, ...rest] = item.marks;
      if (!mark) {
        written.push(...this.#inline(item.inline, oneLine));
        continue;
      }
      const key = JSON.stringify(mark);
      const inner: Run[] = [{ inline: item.inline, marks: rest }];
      while (index + 1 < run.length && JSON.stringify(run[index + 1]?.marks[0]) === key) {
        index += 1;
        const next = run[index];
        if (next) inner.push({ inline: next.inline, marks: next.marks.slice(1) });
      }
      written.push(...wrap(mark, this.#run(inner, oneLine)));
    }
    return written;
  }

  #inline(inline: Inline, oneLine: boolean): PhrasingContent[] {
    switch (inline.type) {
      case "text":
        return [{ type: "text", value: inline.text }];
      case "hardBreak":
        return [oneLine ? BREAK_IN_CELL : { type: "break" }];
      case "image": {
        const { attachment, alt, width } = inline.attrs;
        return [{ type: "image", url: attachment, alt, title: width === null ? null : `width=${width}` }];
      }
      case "token":
      case "blank":
        return [{ type: "placeholder", value: placeholderText(inline) }];
    }
  }
}

interface Run {
  inline: Inline;
  marks: Mark[];
}

const BREAK_IN_CELL: PhrasingContent = { type: "html", value: "<br>" };
const GAP: PhrasingContent = { type: "html", value: "&nbsp;" };

/** Passages outermost, then links, so that a mark's pieces stay together. */
const order: Mark["type"][] = [
  "passage",
  "link",
  "highlight",
  "underline",
  "strike",
  "bold",
  "italic",
  "literal",
];

function byOrder(a: Mark, b: Mark): number {
  return order.indexOf(a.type) - order.indexOf(b.type);
}

function wrap(mark: Mark, children: PhrasingContent[]): PhrasingContent[] {
  const directive = (name: string, ref?: PassageRef): TextDirective => ({
    type: "textDirective",
    name,
    attributes: ref ? attributesOf(ref) : {},
    children,
  });
  switch (mark.type) {
    case "bold":
      return [{ type: "strong", children }];
    case "italic":
      return [{ type: "emphasis", children }];
    case "strike":
      return [{ type: "delete", children }];
    case "underline":
      return [directive("u")];
    case "highlight":
      return [directive("mark")];
    case "literal":
      return children.flatMap((child) => (child.type === "text" ? literalBraces(child.value) : [child]));
    case "link":
      return [{ type: "link", url: mark.attrs.href, children }];
    case "passage":
      return mark.attrs.passages.reduceRight<PhrasingContent[]>(
        (inner, ref) => [
          { type: "textDirective", name: "passage", attributes: attributesOf(ref), children: inner },
        ],
        children,
      );
  }
}

/** Words with their braces as ones that are meant so. */
function literalBraces(words: string): PhrasingContent[] {
  return words
    .split(/([{}])/)
    .filter((part) => part !== "")
    .map((value) => ({ type: /[{}]/.test(value) ? "literalBrace" : "text", value }));
}

function attributesOf({ id, otherwise }: PassageRef): Record<string, string> {
  return otherwise ? { id, otherwise: "" } : { id };
}

function leading(name: "row" | "item") {
  return (ref: PassageRef): TextDirective => ({
    type: "textDirective",
    name,
    attributes: attributesOf(ref),
    children: [],
  });
}

function sameRef(a: PassageRef | undefined, b: PassageRef): boolean {
  return a?.id === b.id && a.otherwise === b.otherwise;
}

function marked(inline: Inline): boolean {
  return inline.marks?.some((mark) => mark.type === "passage") ?? false;
}

function withRefs(inline: Inline, refs: PassageRef[]): Inline {
  const others = (inline.marks ?? []).filter((mark) => mark.type !== "passage");
  const own = (inline.marks ?? []).flatMap((mark) => (mark.type === "passage" ? mark.attrs.passages : []));
  return { ...inline, marks: [{ type: "passage", attrs: { passages: [...refs, ...own] } }, ...others] };
}

const writePlaceholder: Handle = (node: { value: string }, _parent, state) =>
  state.stack.includes("tableCell") ? node.value.replace(/[\\|]/g, "\\$&") : node.value;
/** What stands before it must know how it begins. */
const placeholder = Object.assign(writePlaceholder, { peek: () => "{" });

/** A brace that is meant as one. Before it a colon is escaped as before the brace itself, so that both are written alike. */
const literalBrace = Object.assign<Handle, { peek: Handle }>((node: { value: string }) => `\\${node.value}`, {
  peek: () => "{",
});

const directives = directiveToMarkdown({ preferShortcut: true, collapseEmptyAttributes: true });
const addresses: Unsafe["notInConstruct"] = ["destinationLiteral", "destinationRaw", "titleQuote"];

const options: Options = {
  bullet: "-",
  rule: "-",
  emphasis: "_",
  strong: "*",
  listItemIndent: "one",
  incrementListMarker: true,
  resourceLink: true,
  extensions: [
    gfmToMarkdown({ tablePipeAlign: false }),
    {
      ...directives,
      unsafe: [
        // Only what would be read as a directive is escaped: “07:00” stays as it is.
        {
          character: ":",
          // Looked at and not taken, so that the colon after it is seen too.
          after: "(?=(?:passage|row|item|u|mark)(?![\\p{L}\\p{N}])|[\\p{L}\\p{N}_-]+[\\[{])",
          unicode: true,
          inConstruct: "phrasing",
          notInConstruct: addresses,
        },
        { character: ":", after: "(?=:)", inConstruct: "phrasing", notInConstruct: addresses },
        { atBreak: true, character: ":", after: ":" },
      ],
    },
    {
      handlers: { placeholder, literalBrace },
      unsafe: [{ character: "{", after: "\\$", inConstruct: "phrasing", notInConstruct: addresses }],
    },
  ],
};
