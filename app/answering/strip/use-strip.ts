import { reasonOf } from "#core/text/reason";
import { useCallback, useEffect, useMemo, useState } from "react";
import type { OpenCase } from "#server/answering/open";
import type { StripReply } from "#server/strip/strip";
import { readFrom } from "../../ui/read";
import { t } from "../../words/answering";

const WAIT_MS = 80;
/** So many cards before the end of what is here, the rest is asked for. */
const NEAR = 5;

interface Found {
  query: string;
  replies: StripReply[];
  unranked: boolean;
}

/** The other of the two that fit best, where the chosen one is one of them; what is at hand may stand between them. */
function rivalOf(replies: StripReply[], current: number): StripReply | null {
  const byFit = replies.filter(({ fit }) => fit !== null).sort((a, b) => (b.fit ?? 0) - (a.fit ?? 0));
  const [first, second] = byFit.length > 1 ? byFit : replies;
  const chosen = replies[current];
  if (chosen === undefined || !first || !second) return null;
  return chosen === first ? second : chosen === second ? first : null;
}

async function readStrip(
  number: number,
  asked: { q: string; language: string },
  signal: AbortSignal,
): Promise<Omit<Found, "query">> {
  const search = new URLSearchParams(asked);
  return (await readFrom(`/cases/${number}/strip?${search.toString()}`, signal)) as Omit<Found, "query">;
}

export type StripHandle = ReturnType<typeof useStrip>;

/** The replies of the strip, those of the case or those found by what is typed, and which of them is chosen. */
export function useStrip(open: OpenCase) {
  // Where nothing fits, nothing is chosen until somebody chooses.
  const first = open.strip.nothingFits ? -1 : 0;
  const [at, setAt] = useState(first);
  const [query, setQuery] = useState("");
  const [found, setFound] = useState<Found | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const language = open.draft?.language ?? open.language;
  const wanted = query.trim();

  useEffect(() => {
    if (wanted === "") return;
    const abort = new AbortController();
    const timer = setTimeout(() => {
      readStrip(open.number, { q: wanted, language }, abort.signal)
        .then(({ replies, unranked }) => {
          setFound({ query: wanted, replies, unranked });
          setProblem(null);
        })
        .catch((error: unknown) => {
          if (!abort.signal.aborted) setProblem(t("theShelfCouldNotBeSearched", { error: reasonOf(error) }));
        });
    }, WAIT_MS);
    return () => {
      clearTimeout(timer);
      abort.abort();
    };
  }, [wanted, language, open.number]);

  const [more, setMore] = useState<StripReply[] | null>(null);
  const [asked, setAsked] = useState(false);
  // The cards behind the first come when the hand is on the way there.
  const isWhole = open.strip.replies.length >= open.strip.total;
  const isNear = asked || at >= open.strip.replies.length - NEAR;
  useEffect(() => {
    if (!isNear || more !== null || isWhole) return;
    const abort = new AbortController();
    readStrip(open.number, { q: "", language }, abort.signal)
      .then(({ replies }) => setMore(replies))
      .catch((error: unknown) => {
        if (!abort.signal.aborted) setProblem(t("theRestOfTheShelfCould", { error: reasonOf(error) }));
      });
    return () => abort.abort();
  }, [isNear, isWhole, more, open.number, language]);
  const askForMore = useCallback(() => setAsked(true), []);
  // What came with the case stays where it stood; the rest goes behind it.
  const own = useMemo(() => {
    const first = open.strip.replies;
    const known = new Set(first.map((one) => one.key));
    return more === null ? first : [...first, ...more.filter((one) => !known.has(one.key))];
  }, [open.strip.replies, more]);
  const replies = wanted !== "" && found !== null ? found.replies : own;
  const current = Math.min(at, replies.length - 1);
  /** What is typed; the nearest found is chosen. */
  const type = useCallback(
    (typed: string) => {
      setAt(typed.trim() === "" ? first : 0);
      setQuery(typed);
    },
    [first],
  );
  /** After a reply was taken: what answers another question of the customer's is chosen next, else the reply itself; nothing where it was searched for. */
  const next = useCallback(
    (reply: StripReply, taken: ReadonlySet<string>) => {
      const { replies: own } = open.strip;
      const also = own.findIndex((one) => one.also !== null && one.key !== reply.key && !taken.has(one.key));
      setAt(also >= 0 ? also : own.findIndex((one) => one.key === reply.key));
      setQuery("");
    },
    [open.strip],
  );
  /** The question that a reply of the case answers beside the first; null for the first, and for what is not known. */
  const alsoOf = useCallback((key: string) => own.find((one) => one.key === key)?.also ?? null, [own]);
  const { total, nothingFits, unranked } = open.strip;
  const searching = wanted !== "" && found?.query !== wanted;
  const isUnranked = wanted !== "" && found !== null ? found.unranked : unranked;
  // The same object while nothing of it changes: what is written beside it draws no card again.
  return useMemo(
    () => ({
      query,
      setQuery: type,
      replies,
      current,
      setCurrent: setAt,
      next,
      alsoOf,
      askForMore,
      chosen: replies[current] ?? null,
      total,
      nothingFits: nothingFits && wanted === "",
      /** Whether ranking did not answer: the order is by use alone. */
      unranked: isUnranked,
      /** What stands beside the chosen one as likely: the first for the second, and the second for the first. */
      rival: rivalOf(replies, current),
      searching,
      problem: wanted === "" ? null : problem,
    }),
    [
      query,
      type,
      replies,
      current,
      next,
      alsoOf,
      askForMore,
      total,
      nothingFits,
      wanted,
      isUnranked,
      searching,
      problem,
    ],
  );
}
