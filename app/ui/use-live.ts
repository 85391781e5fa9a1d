import { useEffect, useRef } from "react";
import { useRevalidator } from "react-router";

const KINDS = ["message", "presence", "details", "queue", "shelf", "note"] as const;
const GATHER_MS = 150;

/** What a screen shows, and so hears of: one case, a list of cases, or the shelves. */
export type Shows = { case: number } | { list: (row: string) => void } | "shelves";

/**
 * Keeps a screen current: loads its data again when the server says that something of it happened. A list is told of
 * the rows that changed, and takes them by itself.
 */
export function useLive(shows: Shows): void {
  const { revalidate } = useRevalidator();
  const latest = useRef({ revalidate, shows });
  useEffect(() => {
    latest.current = { revalidate, shows };
  }, [revalidate, shows]);
  const address =
    shows === "shelves" ? "/events" : "case" in shows ? `/events?case=${shows.case}` : "/events?list=1";
  useEffect(() => {
    const source = new EventSource(address);
    let timer: ReturnType<typeof setTimeout> | undefined;
    const reloadSoon = () => {
      clearTimeout(timer);
      timer = setTimeout(() => void latest.current.revalidate(), GATHER_MS);
    };
    for (const kind of KINDS) source.addEventListener(kind, reloadSoon);
    source.addEventListener("row", (event: MessageEvent<string>) => {
      const now = latest.current.shows;
      if (typeof now === "object" && "list" in now) now.list(event.data);
    });
    return () => {
      clearTimeout(timer);
      source.close();
    };
  }, [address]);
}
