import type { ReplyColumn } from "#server/replies/filter";

/** What the columns of the list are called. */
export const columnLabels: Record<ReplyColumn, string> = {
  shelf: "shelf",
  part: "part",
  state: "state",
  tags: "tags",
  channels: "channels",
  languages: "languages",
  about: "about",
  owner: "owner",
  uses: "used in 90 days",
  used: "used last",
  review: "review by",
  changed: "changed",
};

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
