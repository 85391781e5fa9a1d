import { defaultRangeExtractor, useVirtualizer } from "@tanstack/react-virtual";
import { useCallback, useLayoutEffect, useRef, useState } from "react";

/** A row of a case with its best reply's line below, as it is before it has been measured. */
const ROW_PX = 55;
/** What a page shows before anything of it has been measured: a tall screen of rows. */
const FIRST = { width: 1000, height: 900 };
const WHOLE = { width: 1000, height: Number.MAX_SAFE_INTEGER };

/** A row that is drawn: which, and how far from the top of the list it stands, in px. */
export interface InSight {
  index: number;
  top: number;
}

/**
 * Which rows of a list that scrolls with the page are to be drawn: those in sight, and the chosen one with its neighbours,
 * so that the keys always find the next.
 * @param chosen the place of the chosen row
 * @param whole draws all of them
 */
export function useInSight(count: number, chosen: number, whole: boolean) {
  const list = useRef<HTMLDivElement>(null);
  const [fromTop, setFromTop] = useState(0);
  // What stands above it may take another line when the window changes.
  useLayoutEffect(() => {
    const measure = () => {
      const page = pageOf(list.current);
      if (!list.current || !page) return;
      setFromTop(
        list.current.getBoundingClientRect().top - page.getBoundingClientRect().top + page.scrollTop,
      );
    };
    measure();
    window.addEventListener("resize", measure);
    return () => window.removeEventListener("resize", measure);
  }, []);
  const virtual = useVirtualizer({
    count,
    getScrollElement: () => pageOf(list.current),
    estimateSize: () => ROW_PX,
    overscan: 8,
    scrollMargin: fromTop,
    initialRect: whole ? WHOLE : FIRST,
    initialOffset: 0,
    rangeExtractor: useCallback(
      (range: Parameters<typeof defaultRangeExtractor>[0]) =>
        whole
          ? Array.from({ length: range.count }, (_, index) => index)
          : withChosen(defaultRangeExtractor(range), chosen, range.count),
      [chosen, whole],
    ),
  });
  const items: InSight[] = virtual
    .getVirtualItems()
    .map(({ index, start }) => ({ index, top: start - fromTop }));
  /** Where a place begins, in px from the top of the list; the place after the last is where it ends. */
  const topOf = (index: number): number =>
    index < count ? (virtual.measurementsCache[index]?.start ?? fromTop) - fromTop : virtual.getTotalSize();
  return { list, items, topOf, measure: virtual.measureElement };
}

/** What scrolls: the desk's page. */
const pageOf = (list: HTMLElement | null) => list?.closest<HTMLElement>("#main") ?? null;

/** Places with the chosen one and its neighbours among them, in order. */
export function withChosen(places: number[], chosen: number, count: number): number[] {
  const near = [chosen - 1, chosen, chosen + 1].filter((place) => place >= 0 && place < count);
  return [...new Set([...places, ...near])].sort((a, b) => a - b);
}
