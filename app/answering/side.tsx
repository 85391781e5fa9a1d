import { useCallback, useState, type FocusEvent } from "react";
import { Kbd } from "../ui/kbd";
import { t } from "../words/answering";

/** Which part of the page hears what is typed. */
export type Side = "answer" | "shelf";

function sideOf(element: Element): Side | null {
  const side = element.closest<HTMLElement>("[data-side]")?.dataset.side;
  return side === "answer" || side === "shelf" ? side : null;
}

/**
 * Follows the focus from side to side. What opens over the page belongs to the side that it was opened from.
 * @returns the side that the keys go to, null for neither, and what the page’s element listens with
 */
export function useSide() {
  const [side, setSide] = useState<Side | null>(null);
  const onFocus = useCallback(({ target, currentTarget }: FocusEvent) => {
    if (currentTarget.contains(target)) setSide(sideOf(target));
  }, []);
  const onBlur = useCallback(({ relatedTarget }: FocusEvent) => {
    // A window that is left keeps its focus for when it is come back to.
    if (relatedTarget === null && document.hasFocus()) setSide(null);
  }, []);
  return { side, listen: { onFocus, onBlur } };
}

const WORDS = (): Record<Side, { here: string; there: string }> => ({
  answer: { here: t("inTheAnswer"), there: t("toTheAnswer") },
  shelf: { here: t("onTheShelf"), there: t("toTheShelf") },
});

/** The tag of a side: that the keys go there, or the key that leads there. */
export function SideTag({ side, keysGoTo, onGo }: { side: Side; keysGoTo: Side | null; onGo: () => void }) {
  const { here, there } = WORDS()[side];
  const isHere = keysGoTo === side;
  return (
    <div className={`side-tag ${isHere ? "here" : ""}`}>
      {isHere ? (
        <span>{here}</span>
      ) : (
        // The focus goes where the tag leads, not to the tag, which is another then.
        <button type="button" tabIndex={-1} onMouseDown={(event) => event.preventDefault()} onClick={onGo}>
          {there} <Kbd keys="Esc" />
        </button>
      )}
    </div>
  );
}
