import { lazy, Suspense } from "react";
import type { SortedProps } from "./sorted-list";

const SortedList = lazy(() => import("./sorted-list"));

/** A list that can be put into another order. The handles come once the page is there. */
export function SortableList(props: SortedProps) {
  const { label, keys, className, itemClassName, children } = props;
  return (
    <Suspense
      fallback={
        <ul aria-label={label} className={className}>
          {keys.map((key, index) => (
            <li key={key} data-key={key} className={itemClassName}>
              {children(key, null, index)}
            </li>
          ))}
        </ul>
      }
    >
      <SortedList {...props} />
    </Suspense>
  );
}
