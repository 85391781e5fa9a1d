import { useEffect, useRef } from "react";
import { useRevalidator } from "react-router";

const KINDS = ["message", "presence", "details", "queue", "shelf"] as const;
const GATHER_MS = 150;

/** Keeps a screen current: loads its data again when the server says that something happened. */
export function useLive(caseNumber?: number): void {
  const { revalidate } = useRevalidator();
  const latest = useRef(revalidate);
  useEffect(() => {
    latest.current = revalidate;
  }, [revalidate]);
  useEffect(() => {
    const source = new EventSource(caseNumber === undefined ? "/events" : `/events?case=${caseNumber}`);
    let timer: ReturnType<typeof setTimeout> | undefined;
    const hear = () => {
      clearTimeout(timer);
      timer = setTimeout(() => void latest.current(), GATHER_MS);
    };
    for (const kind of KINDS) source.addEventListener(kind, hear);
    return () => {
      clearTimeout(timer);
      source.close();
    };
  }, [caseNumber]);
}
