import { changedRow, type ChangedRow } from "./waiting";
import { entityManager } from "../db/orm";
import type { LiveEvent } from "../events/notify";

/** By event: the row of the case that it tells of. However many lists are open, it is read once. */
const rows = new WeakMap<LiveEvent, Promise<ChangedRow | null>>();

/** The case that changed in the queue, as lists show it; null where the event names none. */
export function rowChangedBy(event: LiveEvent): Promise<ChangedRow | null> {
  const { changed } = event;
  if (changed === undefined) return Promise.resolve(null);
  let row = rows.get(event);
  if (!row) {
    row = entityManager().then((em) => changedRow(em, changed));
    rows.set(event, row);
  }
  return row;
}
