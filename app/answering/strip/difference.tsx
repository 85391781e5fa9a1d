import { useMemo } from "react";
import { differences, likeness } from "#core/document/differences";
import type { PatternEngine } from "#core/conditions/patterns";
import type { OpenCase } from "#server/answering/open";
import type { StripReply } from "#server/strip/strip";
import { ComparedLines } from "../../ui/compared";
import { readsAs } from "../letter/preview";
import { t } from "../../words/answering";
import { Sentence } from "../../words/sentence";

const MOST_LINES = 4;

interface Props {
  open: OpenCase;
  patterns: PatternEngine;
  reply: StripReply;
  other: StripReply;
}

/**
 * Where a reply differs from another that looks like it, as both read for the case: what it says more is underlaid, what
 * only the other says is struck. One that is only near it is named.
 */
export function Difference({ open, patterns, reply, other }: Props) {
  const found = useMemo(() => {
    const how = likeness(reply, other);
    if (how !== "alike") return how;
    return differences(readsAs(open, other, patterns), readsAs(open, reply, patterns), MOST_LINES);
  }, [open, patterns, reply, other]);
  if (!found) return null;
  if (found === "near")
    return (
      <p role="note" className="mb-3 border-b border-line pb-2.5 text-sm text-soft">
        <Sentence
          of={t}
          name="notTheSameAsOtherWhich"
          values={{ other: other.title.toLowerCase() }}
          parts={[<strong key="0" className="font-semibold text-ink" />]}
        />
      </p>
    );
  if (found.lines.length === 0) return null;
  return (
    <section
      aria-label={t("whatDiffersFromOther", { other: other.title })}
      className="mb-3 border-b border-line pb-2.5"
    >
      <p className="mb-1 text-sm text-soft">
        <Sentence
          of={t}
          name="looksLikeOtherHereTheyDiffer"
          values={{ other: other.title.toLowerCase() }}
          parts={[<strong key="0" className="font-semibold text-ink" />]}
        />
      </p>
      <div className="difference">
        <ComparedLines lines={found.lines} />
      </div>
      {found.more > 0 && <p className="text-sm text-soft">{t("andCountMoreLines", { count: found.more })}</p>}
    </section>
  );
}
