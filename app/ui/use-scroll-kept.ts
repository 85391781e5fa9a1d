import { useLayoutEffect, useRef, type RefObject, type UIEventHandler } from "react";
import { useLocation } from "react-router";

/** How far each page of the history was scrolled, in px. */
const kept = new Map<string, number>();

/** Who goes back to a page finds it where it was left; another page begins at its top. */
export function useScrollKept(): { ref: RefObject<HTMLDivElement | null>; onScroll: UIEventHandler } {
  const { key, hash } = useLocation();
  const ref = useRef<HTMLDivElement>(null);
  useLayoutEffect(() => {
    if (hash === "") ref.current?.scrollTo(0, kept.get(key) ?? 0);
  }, [key, hash]);
  return {
    ref,
    onScroll: ({ target, currentTarget }) => {
      if (target === currentTarget) kept.set(key, currentTarget.scrollTop);
    },
  };
}
