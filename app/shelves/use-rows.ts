import { useCallback, useEffect, useState } from "react";
import type { ReplyRow } from "#server/replies/list";
import { readFrom } from "../ui/read";

interface Found {
  rows: ReplyRow[];
  total: number;
}

interface Known {
  /** The list that the stretches belong to: another filter, or the same one loaded anew. */
  of: object;
  filter: string;
  pages: ReadonlyMap<number, ReplyRow[]>;
  problem: boolean;
}

/** So long the hand may rest on its way before what is there is asked for. */
const WAIT_MS = 60;

/**
 * The rows of a long list by their place, asked for as they come into sight. What was known of them stays while the list
 * is loaded anew.
 * @param found the stretch that the page was loaded with
 * @param filter the address of the list, without its page
 */
export function useRows(found: Found, first: number, size: number, filter: string) {
  const [known, setKnown] = useState<Known>(() => begin(found, first, filter));
  const [wanted, setWanted] = useState<readonly number[]>([]);
  let now = known;
  if (known.of !== found) {
    now = begin(found, first, filter, known);
    setKnown(now);
  }
  const [asked, setAsked] = useState<{ of: object; pages: ReadonlySet<number> }>({
    of: found,
    pages: new Set([first]),
  });
  const isAsked = (page: number) => asked.of === found && asked.pages.has(page);
  const next = wanted.find((page) => !isAsked(page));

  useEffect(() => {
    if (next === undefined) return;
    const abort = new AbortController();
    const timer = setTimeout(() => {
      const query = new URLSearchParams(filter);
      query.set("page", String(next));
      readFrom(`/shelves/rows?${query.toString()}`, abort.signal)
        .then((answer) => {
          const { rows } = answer as Found;
          setKnown((before) =>
            before.of === found
              ? { ...before, pages: new Map(before.pages).set(next, rows), problem: false }
              : before,
          );
        })
        .catch(() => {
          if (!abort.signal.aborted) setKnown((before) => ({ ...before, problem: true }));
        })
        .finally(() => {
          if (abort.signal.aborted) return;
          setAsked((before) => ({
            of: found,
            pages: new Set([...(before.of === found ? before.pages : [first]), next]),
          }));
        });
    }, WAIT_MS);
    return () => {
      clearTimeout(timer);
      abort.abort();
    };
  }, [next, filter, found, first]);

  const { pages, problem } = now;
  const rowAt = useCallback(
    (index: number): ReplyRow | undefined => pages.get(Math.floor(index / size) + 1)?.[index % size],
    [pages, size],
  );
  /** Says which places are in sight. */
  const see = useCallback(
    (from: number, to: number) => {
      const pages: number[] = [];
      for (let page = Math.floor(from / size) + 1; page <= Math.floor(to / size) + 1; page += 1)
        pages.push(page);
      setWanted((before) => (before.join() === pages.join() ? before : pages));
    },
    [size],
  );
  const again = useCallback(() => setAsked({ of: found, pages: new Set([first]) }), [found, first]);
  return { rowAt, see, problem, again };
}

function begin(found: Found, first: number, filter: string, before?: Known): Known {
  const kept = before?.filter === filter ? before.pages : [];
  return { of: found, filter, pages: new Map([...kept, [first, found.rows]]), problem: false };
}
