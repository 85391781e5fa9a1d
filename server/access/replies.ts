import { LockMode, type EntityManager } from "@mikro-orm/postgresql";
import { READABLE_SHELF, type AccessParameters } from "../db/access-rule";
import { Reply, Shelf } from "../db/entities/library";
import { named, query } from "../db/sql";
import { NotAllowed, NotFound } from "../errors";
import { includesRole, type Viewer } from "../people/viewer";
import { t } from "../words";

/** The values of a viewer that the conditions of `server/db/access-rule.ts` ask for. */
export function accessParameters(viewer: Viewer): AccessParameters {
  return {
    person: viewer.id,
    teams: `{${viewer.teams.join()}}`,
    curator: includesRole(viewer.role, "curator"),
  };
}

/** Whether a person may publish to a shelf, and change and retire what stands on it. */
export function mayPublish(viewer: Viewer, shelf: { audience: string; ownerId: number | null }): boolean {
  return shelf.audience === "owner" ? shelf.ownerId === viewer.id : includesRole(viewer.role, "curator");
}

/** A shelf as its access is decided by. */
export interface ShelfAccess {
  id: number;
  key: string;
  name: string;
  mark: string;
  audience: "everyone" | "teams" | "owner";
  ownerId: number | null;
}

/** A reply that a viewer may read, with their rights. */
export interface ReplyAccess {
  id: number;
  key: string;
  title: string;
  state: "draft" | "ready to check" | "shelved" | "retired";
  ownerId: number | null;
  currentVersionId: number | null;
  shelf: ShelfAccess;
  mayPublish: boolean;
}

/** Finds a reply that the viewer may read. @throws NotFound also when it is on nobody's shelf that they see */
export async function findReply(em: EntityManager, viewer: Viewer, key: string): Promise<ReplyAccess> {
  const reply = await em.findOne(
    Reply,
    { key },
    { filters: { readableReply: accessParameters(viewer) }, populate: ["shelf"], disableIdentityMap: true },
  );
  if (!reply) throw new NotFound(t("thereIsNoReplyKeyOn", { key }));
  const shelf = accessOf(reply.shelf);
  return {
    id: reply.id,
    key: reply.key,
    title: reply.title,
    state: reply.state,
    ownerId: reply.owner?.id ?? null,
    currentVersionId: reply.currentVersionId ?? null,
    shelf,
    mayPublish: mayPublish(viewer, shelf),
  };
}

function accessOf({ id, key, name, mark, audience, owner }: Shelf): ShelfAccess {
  return { id, key, name, mark, audience, ownerId: owner?.id ?? null };
}

/**
 * The same under a lock for the rest of the transaction: who may do what is read once nobody can change it any more. Under
 * it versions are made, published and numbered.
 * @throws NotFound
 */
export async function findLockedReply(em: EntityManager, viewer: Viewer, key: string): Promise<ReplyAccess> {
  const reply = await em.findOne(Reply, { key }, { lockMode: LockMode.PESSIMISTIC_WRITE, refresh: true });
  if (reply) await em.lock(reply.shelf, LockMode.PESSIMISTIC_READ);
  return findReply(em, viewer, key);
}

/** The same for who is to change it. @throws NotFound; NotAllowed */
export async function findReplyToKeep(em: EntityManager, viewer: Viewer, key: string): Promise<ReplyAccess> {
  const reply = await findLockedReply(em, viewer, key);
  if (!reply.mayPublish) throw new NotAllowed(t("onlyCuratorsChangeRepliesOnShared"));
  return reply;
}

/** Finds a shelf that the viewer may read. @throws NotFound */
export async function findShelf(em: EntityManager, viewer: Viewer, key: string): Promise<ShelfAccess> {
  const shelf = await em.findOne(
    Shelf,
    { key },
    { filters: { readableShelf: accessParameters(viewer) }, disableIdentityMap: true },
  );
  if (!shelf) throw new NotFound(t("thereIsNoShelfKeyFor", { key }));
  return accessOf(shelf);
}

/** The shelf for a new reply, where the viewer may at least propose. @throws NotFound; NotAllowed */
export async function findShelfToPut(em: EntityManager, viewer: Viewer, key: string): Promise<ShelfAccess> {
  const shelf = await findShelf(em, viewer, key);
  if (shelf.audience === "owner" && shelf.ownerId !== viewer.id)
    throw new NotAllowed(t("thatIsSomebodysOwnShelf"));
  return shelf;
}

/** Whether the viewer may take words from each of these versions: published ones of shelves they use, and their own. */
export async function visibleVersions(
  em: EntityManager,
  viewer: Viewer,
  ids: number[],
): Promise<Set<number>> {
  if (ids.length === 0) return new Set();
  const rows = await query<{ id: number }>(
    em,
    ...named(
      `select v.id from reply_versions v join replies r on r.id = v.reply_id join shelves s on s.id = r.shelf_id
        where v.id = any(:ids) and ${READABLE_SHELF}
          and (v.state in ('published', 'superseded') or v.author_id = :person or (:curator and v.state <> 'draft'))`,
      { ids, ...accessParameters(viewer) },
    ),
  );
  return new Set(rows.map((row) => row.id));
}
