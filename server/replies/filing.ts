import { counted, listed } from "#core/text/counted";
import { dayField } from "#core/forms/fields";
import { filedAs, tagField, type FilingChange } from "#core/forms/library";
import type { EntityManager } from "@mikro-orm/postgresql";
import { z } from "zod";
import { Reply, Shelf, type BulkStep, BulkChange } from "../db/entities/library";
import { Person } from "../db/entities/people";
import { named, query } from "../db/sql";
import { idSchema } from "../edge";
import { Conflict, NotAllowed, NotFound, Unusable } from "../errors";
import { notify } from "../events/notify";
import { includesRole, type Viewer } from "../people/viewer";
import { accessParameters, findShelfToPut, mayPublish, type ReplyAccess } from "../access/replies";
import { READABLE_REPLY } from "../db/access-rule";
import type { ReplyFilter } from "./filter";
import { noteEvents } from "./events";
import { listKeys } from "./list";
import { t } from "../words";

/** More replies than this are not changed at once. */
export const MOST_AT_ONCE = 10_000;

/** Whether nobody uses a reply yet: nothing of it was ever published. */
export function isUnpublished({ state }: Pick<ReplyAccess, "state">): boolean {
  return state === "draft" || state === "ready to check";
}

/** Whether a person files a reply: who publishes it, and the owner of one that was never published. */
export function mayFile(viewer: Viewer, access: ReplyAccess): boolean {
  return access.mayPublish || (isUnpublished(access) && access.ownerId === viewer.id);
}

/** @throws NotAllowed where the viewer does not file the reply */
export function refuseFiling(viewer: Viewer, access: ReplyAccess): void {
  if (!mayFile(viewer, access)) throw new NotAllowed(t("onlyCuratorsFileRepliesOnShared"));
}

/**
 * Files a reply anew, in the caller's transaction, and notes it where colleagues use the reply already.
 * @throws NotAllowed; Unusable
 */
export async function fileReply(
  em: EntityManager,
  viewer: Viewer,
  access: ReplyAccess,
  change: FilingChange,
  now: Date,
): Promise<void> {
  refuseFiling(viewer, access);
  const unpublished = isUnpublished(access);
  const reply = await em.findOneOrFail(Reply, { id: access.id }, { refresh: true });
  const { shelf: shelfKey, ...others } = change;
  const { owner: ownerId, note, tags, topics, ...plain } = others;
  const notes: string[] = [];
  if (shelfKey !== undefined && shelfKey !== access.shelf.key) {
    const shelf = await findShelfToPut(em, viewer, shelfKey);
    if (!unpublished && !mayPublish(viewer, shelf)) throw new NotAllowed(t("youMayNotPutPublishedReplies"));
    reply.shelf = em.getReference(Shelf, shelf.id);
    notes.push(`moved to ${shelf.name}`);
  }
  if (ownerId !== undefined) {
    const owner = ownerId === null ? null : await em.findOne(Person, { id: ownerId });
    if (ownerId !== null && !owner) throw new Unusable(t("thereIsNoSuchColleague"));
    reply.owner = owner;
  }
  if (note !== undefined) reply.note = note === "" ? null : note;
  if (tags !== undefined) reply.tags = [...new Set(tags)];
  if (topics !== undefined) reply.topics = [...new Set(topics)];
  Object.assign(reply, plain);
  if (reply.seasonFrom && reply.seasonUntil && reply.seasonFrom > reply.seasonUntil)
    throw new Unusable(t("theSeasonEndsBeforeItBegins"));
  const named = filingWords(others);
  if (named.length > 0) notes.push(`changed ${listed(named)}`);
  if (!unpublished) for (const words of notes) await noteEvents(em, viewer, [access.id], words, now);
  reply.updatedAt = now;
  await em.flush();
  await notify(em, { case: null, kind: "shelf" });
}

/** What a change is of, in words: `tags`, `review date`. */
function filingWords(change: FilingChange): string[] {
  const names = (Object.keys(change) as (keyof FilingChange)[]).filter((name) => change[name] !== undefined);
  return [...new Set(names.map(filedAs))];
}

export const bulkSchema = z.discriminatedUnion("what", [
  z.strictObject({ what: z.literal("move"), shelf: z.string().min(1) }),
  z.strictObject({ what: z.literal("tag"), tag: tagField }),
  z.strictObject({ what: z.literal("untag"), tag: tagField }),
  z.strictObject({ what: z.literal("retire") }),
  z.strictObject({ what: z.literal("restore") }),
  z.strictObject({ what: z.literal("owner"), owner: idSchema.nullable() }),
  z.strictObject({ what: z.literal("review"), by: z.nullable(dayField) }),
]);
export type BulkInput = z.infer<typeof bulkSchema>;

/** Which replies: some by key, or all that a filter finds. */
export type Selection = { keys: string[] } | { filter: ReplyFilter };

interface Before {
  id: number;
  key: string;
  shelf_id: number;
  tags: string[];
  state: string;
  owner_id: number | null;
  review_by: string | null;
  audience: string;
  shelf_owner: number | null;
  published: boolean;
}

export interface BulkResult {
  /** For undoing it; null where nothing was changed. */
  id: number | null;
  changed: number;
  /** Replies that the viewer may not change. */
  refused: number;
  /** What was done, in words. */
  words: string;
}

/**
 * Changes many replies at once, those that the viewer may change, in one transaction.
 * @throws NotFound; NotAllowed; Unusable where the selection is too large
 */
export async function changeInBulk(
  em: EntityManager,
  viewer: Viewer,
  selection: Selection,
  change: BulkInput,
  now: Date,
): Promise<BulkResult> {
  return em.transactional(async (inner) => {
    const keys =
      "keys" in selection
        ? selection.keys
        : await listKeys(inner, viewer, selection.filter, MOST_AT_ONCE + 1);
    if (keys.length > MOST_AT_ONCE) throw new Unusable(t("atMostMostAtOnceReplies", { MOST_AT_ONCE }));
    const rows = await query<Before>(
      inner,
      ...named(
        `select r.id, r.key, r.shelf_id, r.tags, r.state, r.owner_id, r.review_by::text, s.audience, s.owner_id as shelf_owner,
                exists (select 1 from reply_versions v where v.reply_id = r.id and v.state = 'published') as published
           from replies r join shelves s on s.id = r.shelf_id where r.key = any(:keys) and ${READABLE_REPLY} order by r.id for update of r`,
        { keys, ...accessParameters(viewer) },
      ),
    );
    const allowed = rows.filter((row) =>
      mayPublish(viewer, { audience: row.audience, ownerId: row.shelf_owner }),
    );
    const { words, after } = await planned(inner, viewer, change);
    const steps = allowed.flatMap((row): BulkStep[] => {
      const next = after(row);
      if (next === null || JSON.stringify(next) === JSON.stringify(pick(row, next))) return [];
      return [{ reply: row.id, before: pick(row, next), after: next }];
    });
    const refused = keys.length - allowed.length;
    if (steps.length === 0) return { id: null, changed: 0, refused, words };
    await apply(inner, steps, "after", now);
    const ids = steps.map((step) => step.reply);
    await noteEvents(inner, viewer, ids, `${words.slice(0, 1).toLowerCase()}${words.slice(1)}`, now);
    const told = `${words}: ${counted(steps.length, "reply", "replies")}`;
    const kept = inner.create(BulkChange, {
      person: inner.getReference(Person, viewer.id),
      at: now,
      words: told,
      changes: steps,
      undoneAt: null,
    });
    await inner.flush();
    await notify(inner, { case: null, kind: "shelf" });
    return { id: kept.id, changed: steps.length, refused, words: told };
  });
}

/**
 * Takes a change in bulk back, where nobody has changed the same since.
 * @returns how many replies are as before, and how many were changed since and stay
 * @throws NotFound when it is nobody's of this person; Conflict when it was undone already
 */
export async function undoBulk(
  em: EntityManager,
  viewer: Viewer,
  id: number,
  now: Date,
): Promise<{ undone: number; stay: number }> {
  return em.transactional(async (inner) => {
    const change = await inner.findOne(BulkChange, { id, person: viewer.id });
    if (!change) throw new NotFound(t("thereIsNoSuchChangeOf"));
    if (change.undoneAt) throw new Conflict(t("thatWasUndoneAlready"));
    const ids = change.changes.map((step) => step.reply);
    const rows = await query<Before>(
      inner,
      `select r.id, r.shelf_id, r.tags, r.state, r.owner_id, r.review_by::text from replies r where r.id = any(?) for update`,
      [ids],
    );
    const same = change.changes.filter((step) => {
      const row = rows.find((one) => one.id === step.reply);
      return row !== undefined && JSON.stringify(pick(row, step.after)) === JSON.stringify(step.after);
    });
    await apply(inner, same, "before", now);
    const undone = `undone: ${change.words.replace(/:[^:]*$/, "")}`;
    await noteEvents(
      inner,
      viewer,
      same.map((step) => step.reply),
      undone,
      now,
    );
    change.undoneAt = now;
    await inner.flush();
    await notify(inner, { case: null, kind: "shelf" });
    return { undone: same.length, stay: change.changes.length - same.length };
  });
}

type Values = Record<string, unknown>;

function pick(row: Before, keys: Values): Values {
  const from: Values = { ...row };
  return Object.fromEntries(Object.keys(keys).map((key) => [key, from[key] ?? null]));
}

/** What a change does to a reply: the columns that it sets, or null where it does nothing. */
async function planned(
  em: EntityManager,
  viewer: Viewer,
  change: BulkInput,
): Promise<{ words: string; after: (row: Before) => Values | null }> {
  switch (change.what) {
    case "move": {
      const shelf = await findShelfToPut(em, viewer, change.shelf);
      if (!mayPublish(viewer, shelf)) throw new NotAllowed(t("youMayNotPutRepliesOn"));
      return { words: t("movedToShelf", { shelf: shelf.name }), after: () => ({ shelf_id: shelf.id }) };
    }
    case "tag":
      return {
        words: t("taggedTag", { tag: change.tag }),
        after: (row) => ({ tags: [...new Set([...row.tags, change.tag])] }),
      };
    case "untag":
      return {
        words: t("removedTheTagTag", { tag: change.tag }),
        after: (row) => ({ tags: row.tags.filter((one) => one !== change.tag) }),
      };
    case "retire":
      return { words: t("retired"), after: () => ({ state: "retired" }) };
    case "restore":
      return {
        words: t("restored"),
        after: (row) => (row.state === "retired" ? { state: row.published ? "shelved" : "draft" } : null),
      };
    case "owner": {
      if (!includesRole(viewer.role, "curator") && change.owner !== viewer.id)
        throw new NotAllowed(t("onlyCuratorsGiveRepliesToColleagues"));
      const owner = change.owner === null ? null : await em.findOne(Person, { id: change.owner });
      if (change.owner !== null && !owner) throw new Unusable(t("thereIsNoSuchColleague"));
      return {
        words: owner ? t("givenToOwner", { owner: owner.name }) : t("withoutAnOwner"),
        after: () => ({ owner_id: change.owner }),
      };
    }
    case "review":
      return {
        words: change.by === null ? t("withoutAReviewDate") : t("toBeReviewedByBy", { by: change.by }),
        after: () => ({ review_by: change.by }),
      };
  }
}

/** Columns that changes in bulk may set. */
const COLUMNS: Record<string, string> = {
  shelf_id: "(c.v->>'shelf_id')::int",
  tags: "array(select jsonb_array_elements_text(c.v->'tags'))",
  state: "c.v->>'state'",
  owner_id: "(c.v->>'owner_id')::int",
  review_by: "(c.v->>'review_by')::date",
};

async function apply(
  em: EntityManager,
  steps: BulkStep[],
  side: "before" | "after",
  now: Date,
): Promise<void> {
  const [first] = steps;
  if (!first) return;
  const sets = Object.keys(first[side]).flatMap((column) => {
    const value = COLUMNS[column];
    return value === undefined ? [] : [`${column} = ${value}`];
  });
  await query(
    em,
    `update replies r set ${sets.join(", ")}, updated_at = ? from (
       select (e->>'reply')::int as id, e->'v' as v from jsonb_array_elements(?::jsonb) e
     ) c where c.id = r.id`,
    [now, JSON.stringify(steps.map((step) => ({ reply: step.reply, v: step[side] })))],
  );
}
