import { replyChannels, replyParts, replyStates } from "#core/words/named";
import { z } from "zod";
import { idInPath } from "../edge";
import { accessParameters } from "../access/replies";
import { READABLE_REPLY } from "../db/access-rule";
import type { Viewer } from "../people/viewer";

export const replyColumns = [
  "shelf",
  "part",
  "state",
  "tags",
  "channels",
  "languages",
  "about",
  "owner",
  "uses",
  "used",
  "review",
  "changed",
] as const;
export type ReplyColumn = (typeof replyColumns)[number];

const sorts = [
  "nearest",
  "title",
  "shelf",
  "part",
  "state",
  "owner",
  "uses",
  "used",
  "review",
  "changed",
] as const;

const text = z.string().trim().max(200).catch("");

/**
 * The filters of the list of replies, as they stand in an address. They combine; what cannot be read counts as not set.
 */
const replyFilterSchema = z.object({
  q: text,
  shelf: text,
  part: z.enum(replyParts).nullable().catch(null),
  state: z
    .enum([...replyStates, "any"])
    .nullable()
    .catch(null),
  tag: text,
  channel: z.enum(replyChannels).nullable().catch(null),
  language: text,
  topic: text,
  owner: z
    .union([z.literal("me"), z.literal("nobody"), idInPath])
    .nullable()
    .catch(null),
  /** Review-by date has come; or comes within 30 days. */
  review: z.enum(["due", "soon"]).nullable().catch(null),
  season: z.enum(["in", "out"]).nullable().catch(null),
  use: z.enum(["never", "lately"]).nullable().catch(null),
  sort: z.enum(sorts).nullable().catch(null),
  down: z.stringbool().catch(false),
  page: z.coerce.number().int().min(1).max(100_000).catch(1),
});
export type ReplyFilter = z.infer<typeof replyFilterSchema>;

/** Reads a filter from an address's parameters. */
export function readFilter(params: URLSearchParams): ReplyFilter {
  return replyFilterSchema.parse(Object.fromEntries(params));
}

/** Conditions of a filter on replies `r` of shelves `s`, its search apart, with their values. */
export function filterConditions(
  viewer: Viewer,
  filter: ReplyFilter,
): { sql: string; values: Record<string, unknown> } {
  const conditions: string[] = [READABLE_REPLY];
  const values: Record<string, unknown> = { ...accessParameters(viewer) };
  const add = (sql: string, more: Record<string, unknown> = {}) => {
    conditions.push(sql);
    Object.assign(values, more);
  };
  if (filter.shelf) add("s.key = :shelf", { shelf: filter.shelf });
  if (filter.part) add("r.part = :part", { part: filter.part });
  if (filter.state === null) add("r.state <> 'retired'");
  else if (filter.state !== "any") add("r.state = :state", { state: filter.state });
  if (filter.tag) add("r.tags @> array[:tag]::text[]", { tag: filter.tag });
  if (filter.channel) add(":channel = any(r.channels)", { channel: filter.channel });
  if (filter.topic) add("(r.topics = '{}' or :topic = any(r.topics))", { topic: filter.topic });
  if (filter.language)
    add(
      "exists (select 1 from reply_variants l where l.version_id = r.current_version_id and left(l.language, 2) = left(:language, 2))",
      { language: filter.language },
    );
  if (filter.owner === "me") add("r.owner_id = :person");
  else if (filter.owner === "nobody") add("r.owner_id is null");
  else if (filter.owner !== null) add("r.owner_id = :owner", { owner: filter.owner });
  if (filter.review === "due") add("r.review_by <= current_date");
  if (filter.review === "soon") add("r.review_by <= current_date + 30");
  const inSeason =
    "coalesce(r.season_from <= current_date, true) and coalesce(r.season_until >= current_date, true)";
  if (filter.season) add(filter.season === "in" ? inSeason : `not (${inSeason})`);
  if (filter.use === "never") add("not exists (select 1 from letter_replies u where u.reply_id = r.id)");
  if (filter.use === "lately")
    add(
      "exists (select 1 from letter_replies u where u.reply_id = r.id and u.at > now() - interval '90 days')",
    );
  return { sql: conditions.join(" and "), values };
}
