import { lazy, Suspense } from "react";
import type { DateProps } from "./date-entry";

const DateEntry = lazy(() => import("./date-entry"));

/** A day: typed in any usual way, or chosen from a month. What reads days comes once a screen has such a field. */
export function DateField(props: DateProps) {
  return (
    <Suspense fallback={<span className={props.className ?? "lined-field w-28"}>{props.value}</span>}>
      <DateEntry {...props} />
    </Suspense>
  );
}
