import { Ellipsis } from "lucide-react";

/** How menus over the page look. */
export const MENU =
  "z-50 max-w-96 min-w-48 border border-board bg-sheet py-1 text-sm shadow-md outline-none data-[state=closed]:hidden";
export const MENU_ITEM =
  "flex cursor-pointer items-baseline truncate border-l-[3px] border-transparent py-1 pr-4 pl-2.5 outline-none data-highlighted:border-l-accent data-highlighted:bg-wash data-[state=open]:bg-wash";

/** How what opens a row's menu looks. */
export const ROW_BUTTON =
  "inline-flex min-h-6 min-w-6 shrink-0 items-center justify-center text-soft hover:text-ink data-[state=open]:text-ink";

/** That there is more to do. */
export function RowSign() {
  return <Ellipsis size={16} aria-hidden="true" />;
}
