import type { ReplyColumn } from "#server/replies/filter";
import { t } from "../words/shelves";

/** What the columns of the list are called. */
export const columnLabels = (): Record<ReplyColumn, string> => ({
  shelf: "shelf",
  part: "part",
  state: "state",
  tags: "tags",
  channels: "channels",
  languages: "languages",
  about: "about",
  owner: "owner",
  uses: t("usedIn90Days"),
  used: t("usedLast"),
  review: t("reviewBy2"),
  changed: "changed",
});

/** Columns that the list can be sorted by. */
export const sortable: ReadonlySet<ReplyColumn> = new Set<ReplyColumn>([
  "shelf",
  "part",
  "state",
  "owner",
  "uses",
  "used",
  "review",
  "changed",
]);
