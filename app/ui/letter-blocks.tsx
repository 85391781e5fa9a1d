import { createContext, Fragment, use, type ReactNode } from "react";
import { safeHref } from "#core/document/links";
import { placeholderText } from "#core/document/placeholder";
import type { BlankNode, Block, Inline, Mark, Source, TokenNode } from "#core/document/types";
import { fromWhere, WordSource } from "./word-source";
import { t } from "../words/ui";

type Placeholder = TokenNode | BlankNode;

/** How values and blanks are drawn that nothing has filled: as they are written, unless somebody knows what they are called. */
export const Placeholders = createContext((node: Placeholder): ReactNode => (
  <span className={node.type === "token" ? "token" : "blank-value"}>{placeholderText(node)}</span>
));

/** A composed letter for reading: values underlined, blanks dotted, gaps struck, as in the editor. */
export function LetterBlocks({ blocks }: { blocks: Block[] }) {
  return blocks.map((block, index) => <BlockView key={index} block={block} />);
}

function BlockView({ block }: { block: Block }) {
  switch (block.type) {
    case "paragraph":
      return <p>{block.content.length > 0 ? <Inlines inlines={block.content} /> : <br />}</p>;
    case "heading": {
      const Tag = block.attrs.level === 1 ? "h1" : block.attrs.level === 2 ? "h2" : "h3";
      return (
        <Tag>
          <Inlines inlines={block.content} />
        </Tag>
      );
    }
    case "bulletList":
      return (
        <ul>
          {block.content.map((item, index) => (
            <li key={index}>
              <LetterBlocks blocks={item.content} />
            </li>
          ))}
        </ul>
      );
    case "orderedList":
      return (
        <ol start={block.attrs.start}>
          {block.content.map((item, index) => (
            <li key={index}>
              <LetterBlocks blocks={item.content} />
            </li>
          ))}
        </ol>
      );
    case "blockquote":
      return (
        <blockquote>
          <LetterBlocks blocks={block.content} />
        </blockquote>
      );
    case "horizontalRule":
      return <hr />;
    case "table":
      return (
        <table>
          <tbody>
            {block.content.map((row, index) => (
              <tr key={index}>
                {row.content.map((cell, column) => {
                  const Tag = cell.type === "tableHeader" ? "th" : "td";
                  return (
                    <Tag key={column} colSpan={cell.attrs.colspan} rowSpan={cell.attrs.rowspan}>
                      <LetterBlocks blocks={cell.content} />
                    </Tag>
                  );
                })}
              </tr>
            ))}
          </tbody>
        </table>
      );
  }
}

function Inlines({ inlines }: { inlines: Inline[] }) {
  return inlines.map((inline, index) => (
    <Fragment key={index}>{marked(<InlineView inline={inline} />, inline.marks)}</Fragment>
  ));
}

function InlineView({ inline }: { inline: Inline }) {
  const placeholder = use(Placeholders);
  switch (inline.type) {
    case "text":
      return <Sourced source={inline.source} text={inline.text} />;
    case "hardBreak":
      return <br />;
    case "image":
      return (
        <img
          src={`/library-files/${encodeURIComponent(inline.attrs.attachment)}`}
          alt={inline.attrs.alt}
          width={inline.attrs.width ?? undefined}
        />
      );
    case "token":
    case "blank":
      return placeholder(inline);
  }
}

function Sourced({ source, text }: { source: Source | undefined; text: string }) {
  if (!source || source.kind === "own") return text;
  const blank = source.kind === "blank";
  const where = source.missing
    ? t("thereIsNoValue")
    : blank
      ? t("filledInByTheAgent")
      : fromWhere(source.name ?? "");
  return (
    <WordSource name={source.name ?? ""} words={where}>
      <span className={blank ? "blank-value" : source.missing ? "missing" : "token"}>
        {source.missing ? text.replace(/^\[|\]$/g, "") : text}
      </span>
    </WordSource>
  );
}

/** Words in their marks. */
export function marked(inner: ReactNode, marks: Mark[] = []): ReactNode {
  return marks.reduceRight((content, mark) => {
    switch (mark.type) {
      case "bold":
        return <strong>{content}</strong>;
      case "italic":
        return <em>{content}</em>;
      case "underline":
        return <u>{content}</u>;
      case "strike":
        return <s>{content}</s>;
      case "highlight":
        return <mark>{content}</mark>;
      case "link":
        return (
          <a href={safeHref(mark.attrs.href) ?? "#"} target="_blank" rel="noopener noreferrer">
            {content}
          </a>
        );
      case "literal":
      case "passage":
        return content;
    }
  }, inner);
}
