import { useCallback, useMemo, useState } from "react";
import type { SendCheck } from "#core/checks/check";
import { askedBlanks } from "#core/compose/unanswered";
import type { Letter } from "#core/compose/letter";
import type { BlankValue } from "#core/tokens/blanks";
import type { DraftSlip } from "#server/answering/draft";
import type { OpenCase } from "#server/answering/open";
import type { StripReply } from "#server/strip/strip";
import { previewOf } from "../answering/letter/preview";
import { firstSlips } from "../answering/letter/take";
import { useLanguageGuess } from "../answering/letter/use-language-guess";
import { usePatterns } from "../answering/letter/use-patterns";

/** A piece of the shelf that is looked at before it is sent. */
export interface LookedAt {
  slip: DraftSlip;
  letter: Letter;
  checks: SendCheck[];
  /** Whether its agent is asked a blank. */
  isAsked: (name: string) => boolean;
  fill: (name: string, value: BlankValue) => void;
}

const AROUND_NOTHING = { opening: [], closing: [] };

/** What of the shelf is looked at for a chat, and how any reply would read there. */
export function useLooked(open: OpenCase): {
  looked: LookedAt | null;
  /** @param reply null puts back what is looked at */
  look: (reply: StripReply | null) => void;
  /** A reply as it stands, with its second look. */
  asItStands: (reply: StripReply) => { slip: DraftSlip; checks: SendCheck[] };
} {
  const [slip, setSlip] = useState<DraftSlip | null>(null);
  const patterns = usePatterns(open);
  const languageOf = useLanguageGuess();
  const look = useCallback((reply: StripReply | null) => {
    setSlip(reply === null ? null : (firstSlips(reply, AROUND_NOTHING)[0] ?? null));
  }, []);
  const fill = useCallback(
    (name: string, value: BlankValue) =>
      setSlip((before) => before && { ...before, values: { ...before.values, [name]: value } }),
    [],
  );
  const asItStands = useCallback(
    (reply: StripReply) => {
      const [first] = firstSlips(reply, AROUND_NOTHING);
      if (!first) throw new Error("A reply makes a slip");
      return { slip: first, checks: previewOf(open, [first], patterns, languageOf).checks };
    },
    [open, patterns, languageOf],
  );
  const looked = useMemo(() => {
    if (!slip) return null;
    const asked = askedBlanks(slip);
    const { letter, checks } = previewOf(open, [slip], patterns, languageOf);
    return { slip, letter, checks, isAsked: (name: string) => asked.has(name), fill };
  }, [slip, open, patterns, languageOf, fill]);
  return { looked, look, asItStands };
}
