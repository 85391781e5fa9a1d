import type { EntityManager } from "@mikro-orm/postgresql";
import { z } from "zod";
import { MOST_TAGS, tagSchema, withTags } from "#core/standing/effects";
import { prepared } from "../db/sql";
import { Unusable } from "../errors";
import { locked, record, standing, type Changed, type Given } from "./recorded";
import { t } from "../words";

/** The tags of a case, all of them. */
export const tagsSchema = z.strictObject({
  what: z.literal("tags"),
  tags: z.array(tagSchema).max(MOST_TAGS, t.error("aCaseHasFewerTags")),
});

/** All tags that cases have, in their order. */
export async function tagsOf(em: EntityManager): Promise<string[]> {
  const rows = await prepared<{ tag: string }>(
    em,
    "select distinct unnest(tags) as tag from cases where tags <> '{}' order by tag",
  );
  return rows.map(({ tag }) => tag);
}

/** Says by which words a case is found among others. @throws NotFound; Unusable where it has those already */
export async function setTags(given: Given, tags: string[]): Promise<Changed> {
  const { em, number, now } = given;
  const [subject] = await locked(em, [number]);
  const next = withTags([], tags);
  if (next.join() === subject.tags.join()) throw new Unusable(t("theCaseHasThoseTagsAlready"), "tags");
  const before = [standing(subject)];
  Object.assign(subject, { tags: next, updatedAt: now });
  return record(given, { kind: "tags", from: subject, to: subject, messages: [], before }, ({ label }) =>
    next.length === 0 ? t("tookTagsAway", { label }) : t("setTagsTo", { label, tags: next.join(", ") }),
  );
}
