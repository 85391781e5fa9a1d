import { useMemo } from "react";
import { differences, lookAlike } from "#core/document/differences";
import type { StripReply } from "#server/replies/strip";
import { ComparedLines } from "../ui/compared";

const MOST_LINES = 4;

/** Where a reply differs from another that looks like it: what it says more is underlaid, what only the other says is struck. */
export function Difference({ reply, other }: { reply: StripReply; other: StripReply | null }) {
  const found = useMemo(
    () => (other && lookAlike(reply, other) ? differences(other.document, reply.document, MOST_LINES) : null),
    [reply, other],
  );
  if (!other || !found || found.lines.length === 0) return null;
  return (
    <section aria-label={`What differs from “${other.title}”`} className="mb-3 border-b border-line pb-2.5">
      <p className="mb-1 text-sm text-soft">
        Looks like <strong className="font-semibold text-ink">{other.title.toLowerCase()}</strong>; here they
        differ:
      </p>
      <div className="difference">
        <ComparedLines lines={found.lines} />
      </div>
      {found.more > 0 && (
        <p className="text-sm text-soft">
          and {found.more} more {found.more === 1 ? "line" : "lines"}
        </p>
      )}
    </section>
  );
}
