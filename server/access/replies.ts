import { LockMode, type EntityManager } from "@mikro-orm/postgresql";
import { Reply } from "../db/entities/library";
import { named, query } from "../db/sql";
import { NotAllowed, NotFound } from "../errors";
import { includesRole, type Viewer } from "../people/viewer";

/**
 * Who may see, use, change and publish replies, in one place. Shelves are `s` and replies `r` in these conditions;
 * their values are `accessParameters`.
 *
 * Used in answers are the replies of shelves for everyone, for one's own team, and of one's own. Read, for keeping
 * them, are also the shared shelves of other teams by curators. A personal shelf is its owner's alone.
 */
export const USABLE_SHELF = `(s.audience = 'everyone' or (s.audience = 'owner' and s.owner_id = :person)
  or (s.audience = 'teams' and exists (select 1 from shelf_teams st where st.shelf_id = s.id and st.team_id = :team)))`;

const READABLE_SHELF = `(${USABLE_SHELF} or (:curator and s.audience <> 'owner'))`;

/** Before a reply was ever published only its owner and curators see it. */
export const READABLE_REPLY = `(${READABLE_SHELF} and (r.state in ('shelved', 'retired') or r.owner_id = :person or :curator))`;

/** The values that the conditions ask for. */
export function accessParameters(viewer: Viewer): { person: number; team: number; curator: boolean } {
  return { person: viewer.id, team: viewer.teamId, curator: includesRole(viewer.role, "curator") };
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

interface Row {
  id: number;
  key: string;
  title: string;
  state: ReplyAccess["state"];
  owner_id: number | null;
  current_version_id: number | null;
  shelf_id: number;
  shelf_key: string;
  shelf_name: string;
  mark: string;
  audience: ShelfAccess["audience"];
  shelf_owner: number | null;
}

/** Finds a reply that the viewer may read. @throws NotFound also when it is on nobody's shelf that they see */
export async function findReply(em: EntityManager, viewer: Viewer, key: string): Promise<ReplyAccess> {
  const [row] = await query<Row>(
    em,
    ...named(
      `select r.id, r.key, r.title, r.state, r.owner_id, r.current_version_id,
              s.id as shelf_id, s.key as shelf_key, s.name as shelf_name, s.mark, s.audience, s.owner_id as shelf_owner
         from replies r join shelves s on s.id = r.shelf_id where r.key = :key and ${READABLE_REPLY}`,
      { key, ...accessParameters(viewer) },
    ),
  );
  if (!row) throw new NotFound(`There is no reply “${key}” on a shelf of yours`);
  const shelf: ShelfAccess = {
    id: row.shelf_id,
    key: row.shelf_key,
    name: row.shelf_name,
    mark: row.mark,
    audience: row.audience,
    ownerId: row.shelf_owner,
  };
  return {
    id: row.id,
    key: row.key,
    title: row.title,
    state: row.state,
    ownerId: row.owner_id,
    currentVersionId: row.current_version_id,
    shelf,
    mayPublish: mayPublish(viewer, shelf),
  };
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
  if (!reply.mayPublish)
    throw new NotAllowed("Only curators change replies on shared shelves; you may propose a change");
  return reply;
}

/** Finds a shelf that the viewer may read. @throws NotFound */
export async function findShelf(em: EntityManager, viewer: Viewer, key: string): Promise<ShelfAccess> {
  const [row] = await query<Omit<ShelfAccess, "ownerId"> & { owner_id: number | null }>(
    em,
    ...named(
      `select s.id, s.key, s.name, s.mark, s.audience, s.owner_id from shelves s where s.key = :key and ${READABLE_SHELF}`,
      { key, ...accessParameters(viewer) },
    ),
  );
  if (!row) throw new NotFound(`There is no shelf “${key}” for you`);
  const { owner_id: ownerId, ...shelf } = row;
  return { ...shelf, ownerId };
}

/** The shelf for a new reply, where the viewer may at least propose. @throws NotFound; NotAllowed */
export async function findShelfToPut(em: EntityManager, viewer: Viewer, key: string): Promise<ShelfAccess> {
  const shelf = await findShelf(em, viewer, key);
  if (shelf.audience === "owner" && shelf.ownerId !== viewer.id)
    throw new NotAllowed("That is somebody’s own shelf");
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
