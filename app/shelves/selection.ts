/** Replies that are selected, across pages: some by key, or all that the filter finds. */
export interface Selection {
  all: boolean;
  /** The filter that “all” means, as an address has it. */
  filter: string;
  keys: ReadonlySet<string>;
}

export const emptySelection: Selection = { all: false, filter: "", keys: new Set() };

export function isSelected(selection: Selection, key: string): boolean {
  return selection.all || selection.keys.has(key);
}

/** The selection with some rows more, or fewer. Where all were selected, the others of the page stay. */
export function toggled(selection: Selection, keys: string[], on: boolean, page: string[]): Selection {
  const next = new Set(selection.all ? page : selection.keys);
  for (const key of keys) {
    if (on) next.add(key);
    else next.delete(key);
  }
  return { all: false, filter: "", keys: next };
}
