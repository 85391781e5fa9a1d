import { Fragment, use } from "react";
import type { ComparedLine, ComparedPiece, ComparedText } from "#core/document/compare";
import type { PassageRef } from "#core/document/definition";
import { Hint } from "./hint";
import { marked, Placeholders } from "./letter-blocks";
import { t } from "../words/ui";

/** A comparison of two documents: what came is underlaid, what went is struck, other formatting is dotted. */
export function ComparedLines({
  lines,
  when,
}: {
  lines: ComparedLine[];
  /** What a condition says, for the margin. */
  when?: (refs: PassageRef[]) => string;
}) {
  return (
    <div className="letter flex flex-col">
      {lines.map((line, index) => {
        // A row is only where its cells begin.
        if (line.lead.at(-1) === "row" && line.pieces.length === 0)
          return <hr key={index} className="compared-row" aria-hidden="true" />;
        return (
          <div key={index} className={`compared-line compared-${line.kind}`}>
            <span className="compared-lead">
              {leadWords(line)}
              {line.passages.length > 0 && when && (
                <span className="block text-look">{when(line.passages)}</span>
              )}
            </span>
            <span>
              {line.pieces.map((piece, at) => (
                <Piece key={at} piece={piece} />
              ))}
            </span>
          </div>
        );
      })}
    </div>
  );
}

function Piece({ piece }: { piece: ComparedPiece }) {
  const { inline, kind } = piece;
  const placeholder = use(Placeholders);
  const words =
    inline.type === "text" ? (
      inline.text
    ) : inline.type === "hardBreak" ? (
      <>
        ↵<br />
      </>
    ) : inline.type === "image" ? (
      <img
        src={`/library-files/${encodeURIComponent(inline.attrs.attachment)}`}
        alt={inline.attrs.alt}
        width={inline.attrs.width ?? 160}
      />
    ) : (
      placeholder(inline)
    );
  return (
    <Changed kind={kind}>
      {marked(
        words,
        inline.marks?.filter((mark) => mark.type !== "link"),
      )}
    </Changed>
  );
}

function Changed({ kind, children }: { kind: ComparedPiece["kind"]; children: React.ReactNode }) {
  switch (kind) {
    case "added":
      return <ins className="compared-ins">{children}</ins>;
    case "removed":
      return <del className="compared-del">{children}</del>;
    case "restyled":
      return (
        <Hint words={t("theSameWordsOtherFormatting")}>
          <span className="compared-style">{children}</span>
        </Hint>
      );
    case "same":
      return children;
  }
}

/** Two short texts compared. */
export function ComparedWords({ pieces }: { pieces: ComparedText[] }) {
  return pieces.map((piece, index) => (
    <Fragment key={index}>
      <Changed kind={piece.kind}>{piece.text}</Changed>
    </Fragment>
  ));
}

/** What a line is and what became of it; nothing for a paragraph that stayed. */
function leadWords({ kind, lead }: ComparedLine): string {
  if (kind === "same" && lead[0] === "paragraph") return "";
  const what = lead.map((one) => t(one)).join(", ");
  return kind === "same" ? what : t(kind === "added" ? "addedLine" : "removedLine", { what });
}
