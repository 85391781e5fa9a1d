import { useEffect, useRef, useState, type ReactNode } from "react";
import { Hint } from "../hint";

const REST_MS = 400;

/** Words that say something of themselves in `data-hint` have it shown to who points at them. */
export function WordHints({ children }: { children: ReactNode }) {
  const [shown, setShown] = useState<{ words: string; box: DOMRect } | null>(null);
  const rest = useRef<ReturnType<typeof setTimeout> | undefined>(undefined);
  useEffect(() => () => clearTimeout(rest.current), []);
  const hide = () => {
    clearTimeout(rest.current);
    setShown(null);
  };
  return (
    <div
      onPointerOverCapture={(event) => {
        const element =
          event.target instanceof Element ? event.target.closest<HTMLElement>("[data-hint]") : null;
        const words = element?.dataset.hint;
        hide();
        if (!element || !words || event.pointerType === "touch") return;
        const box = element.getClientRects()[0] ?? element.getBoundingClientRect();
        rest.current = setTimeout(() => setShown({ words, box }), REST_MS);
      }}
      onPointerOutCapture={hide}
      onPointerDownCapture={hide}
      onKeyDownCapture={hide}
    >
      {children}
      {shown && (
        <Hint words={shown.words} align="start" open>
          <span
            aria-hidden="true"
            className="pointer-events-none fixed"
            style={{
              left: shown.box.left,
              top: shown.box.top,
              width: shown.box.width,
              height: shown.box.height,
            }}
          />
        </Hint>
      )}
    </div>
  );
}
