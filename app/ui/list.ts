/** How a searched list looks: the field above it, and what can be taken. */
export const LIST_INPUT = "w-full border-b border-line bg-transparent px-3 py-2 outline-none";
export const LIST_ITEM =
  "cursor-pointer border-l-[3px] border-transparent py-1 pr-3 pl-2.5 data-[selected=true]:bg-wash";
