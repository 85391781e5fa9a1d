import { lazy, Suspense } from "react";
import type { RowMenuProps } from "./row-actions";
import { ROW_BUTTON, RowSign } from "./menu-look";

const RowActions = lazy(() => import("./row-actions"));

/** What can be done with a row. What opens it comes once the page is there. */
export function RowMenu(props: RowMenuProps) {
  const { label, className = "" } = props;
  return (
    <Suspense
      fallback={
        <button type="button" disabled aria-label={label} className={`${ROW_BUTTON} ${className}`}>
          <RowSign />
        </button>
      }
    >
      <RowActions {...props} />
    </Suspense>
  );
}
