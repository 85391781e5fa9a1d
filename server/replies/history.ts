import type { EntityManager } from "@mikro-orm/postgresql";
import type { Viewer } from "../people/viewer";
import { accessParameters, findReply, type ReplyAccess } from "../access/replies";
import { READABLE_REPLY } from "../db/access-rule";
import { contentsOf, type Content } from "./content";
import { publishedOf, readableVersion } from "./writing";
import { named, preparedOne, query } from "../db/sql";

/** A version as the history lists it. Times are ISO 8601 instants. */
export interface VersionRow {
  id: number;
  /** Null for a working copy. */
  number: number | null;
  state: "draft" | "proposed" | "published" | "superseded" | "sent back";
  author: string | null;
  mine: boolean;
  at: string;
  remark: string | null;
  decidedBy: string | null;
  decidedAt: string | null;
  decision: string | null;
  languages: string[];
  /** How many letters were made of it. */
  letters: number;
}

/** The versions of a reply that the viewer may read, the newest first. */
export async function versionsOf(
  em: EntityManager,
  viewer: Viewer,
  reply: ReplyAccess,
): Promise<VersionRow[]> {
  const rows = await query<
    Omit<VersionRow, "decidedBy" | "decidedAt"> & { decided_by: string | null; decided_at: string | null }
  >(
    em,
    `select v.id, v.number, v.state, a.name as author, coalesce(v.author_id = ?, false) as mine, v.updated_at as at, v.remark,
            d.name as decided_by, v.decided_at, v.decision,
            (select count(*)::int from letter_replies l where l.version_id = v.id) as letters,
            coalesce((select array_agg(t.language order by t.fallback desc, t.language) from reply_variants t where t.version_id = v.id), '{}') as languages
       from reply_versions v left join people a on a.id = v.author_id left join people d on d.id = v.decided_by_id
      where v.reply_id = ? and (v.state in ('published', 'superseded') or v.author_id = ? or (? and v.state <> 'draft'))
      order by v.number desc nulls first`,
    [viewer.id, reply.id, viewer.id, reply.mayPublish],
  );
  return rows.map(({ decided_by: decidedBy, decided_at: decidedAt, at, ...row }) => ({
    ...row,
    at: new Date(at).toISOString(),
    decidedBy,
    decidedAt: decidedAt === null ? null : new Date(decidedAt).toISOString(),
  }));
}

/** Two versions to compare, the older first. */
export interface Comparison {
  reply: { key: string; title: string; mayPublish: boolean; state: string };
  versions: VersionRow[];
  before: { row: VersionRow; content: Content } | null;
  after: { row: VersionRow; content: Content };
  /** The published version's id, for publishing a proposal over it. */
  published: number | null;
}

/**
 * Two versions of a reply side by side.
 * @param afterId the newer, by default the latest; @param beforeId the older, by default the published one, or the one before the newer
 * @throws NotFound
 */
export async function compareVersions(
  em: EntityManager,
  viewer: Viewer,
  key: string,
  afterId: number | null,
  beforeId: number | null,
): Promise<Comparison> {
  const reply = await findReply(em, viewer, key);
  const versions = await versionsOf(em, viewer, reply);
  const after = await readableVersion(em, viewer, reply, afterId ?? versions[0]?.id ?? 0);
  const published = await publishedOf(em, reply.id);
  const place = versions.findIndex((row) => row.id === after.id);
  const previous =
    after.state === "published" || after.state === "superseded"
      ? versions.slice(place + 1).find((row) => row.state === "superseded" || row.state === "published")
      : versions.find((row) => row.id === published?.id);
  const wanted = beforeId ?? previous?.id ?? null;
  const before = wanted === null ? null : await readableVersion(em, viewer, reply, wanted);
  const contents = await contentsOf(em, before ? [before.id, after.id] : [after.id]);
  const side = (id: number) => {
    const row = versions.find((one) => one.id === id);
    const content = contents.get(id);
    if (!row || !content) throw new Error(`Version ${id} is readable and not listed`);
    return { row, content };
  };
  const { title, mayPublish, state } = reply;
  return {
    reply: { key, title, mayPublish, state },
    versions,
    before: before ? side(before.id) : null,
    after: side(after.id),
    published: published?.id ?? null,
  };
}

/** A proposal that waits, or one of the viewer's that was sent back. */
export interface ProposalRow {
  version: number;
  key: string;
  title: string;
  shelf: string;
  mark: string;
  author: string | null;
  at: string;
  remark: string | null;
  /** Whether the reply is new: nothing of it is published yet. */
  fresh: boolean;
  /** Whether another version was published since it was begun. */
  overtaken: boolean;
  state: "proposed" | "sent back";
  decision: string | null;
  decidedBy: string | null;
}

/** Joins to a version `v` its reply and its shelf. */
const WITH_REPLY = `join replies r on r.id = v.reply_id join shelves s on s.id = r.shelf_id`;

/** Whether the viewer may read such a reply, others read it too, and it is in use. */
const SHARED = `s.audience <> 'owner' and r.state <> 'retired' and ${READABLE_REPLY}`;

/** How many proposals wait for a curator; 0 for who is none. */
export const TO_CHECK = `(select count(*)::int from reply_versions v ${WITH_REPLY} where v.state = 'proposed' and :curator and ${SHARED})`;

/** Whether it came back to the viewer, and nothing was done with it since. */
const CAME_BACK = `v.state = 'sent back' and v.author_id = :person and v.decided_by_id <> v.author_id
  and not exists (select 1 from reply_versions w where w.reply_id = v.reply_id and w.author_id = :person and w.updated_at > v.decided_at)`;

/** What waits for a curator, the oldest first; for an agent, their own proposals and what came back to them. */
export async function proposals(em: EntityManager, viewer: Viewer): Promise<ProposalRow[]> {
  const rows = await query<Omit<ProposalRow, "decidedBy"> & { decided_by: string | null }>(
    em,
    ...named(
      `select v.id as version, r.key, v.title, s.name as shelf, s.mark, a.name as author, v.updated_at as at, v.remark, v.state, v.decision,
              d.name as decided_by, p.id is null as fresh, p.id is distinct from v.base_id as overtaken
         from reply_versions v ${WITH_REPLY}
         left join people a on a.id = v.author_id left join people d on d.id = v.decided_by_id
         left join reply_versions p on p.reply_id = r.id and p.state = 'published'
        where ${SHARED}
          and ((v.state = 'proposed' and (:curator or v.author_id = :person)) or (${CAME_BACK}))
        order by v.updated_at, v.id`,
      accessParameters(viewer),
    ),
  );
  return rows.map(({ decided_by: decidedBy, at, ...row }) => ({
    ...row,
    decidedBy,
    at: new Date(at).toISOString(),
  }));
}

/** A decision on a proposal of the viewer's. */
interface Decided {
  key: string;
  title: string;
  /** What was said with it. */
  decision: string | null;
  decidedBy: string;
}

/** How proposals stand, for who made them and for who decides on them. */
export interface ProposalNews {
  /** So many wait for a curator; 0 for who is none. */
  toCheck: number;
  /** So many of the viewer's own wait. */
  waiting: number;
  /** The viewer's own that came back, and that nothing was done with since. */
  back: Decided[];
  /** The viewer's own that were published within the last days. */
  published: Decided[];
}

/** So long it is news that a proposal was published. */
const NEWS_DAYS = 7;

/** How proposals stand: shown at the head of Waiting. */
export async function proposalNews(em: EntityManager, viewer: Viewer): Promise<ProposalNews> {
  const told = (which: string) =>
    `(select coalesce(jsonb_agg(jsonb_build_object('key', key, 'title', title, 'decision', decision, 'decidedBy', decided_by)
               order by decided_at desc), '[]') from told where ${which})`;
  return preparedOne<ProposalNews>(
    em,
    ...named(
      // The few that were decided on are read first, by their index: the planner takes them for many.
      `with decided as materialized (
              select v.reply_id, v.state, v.title, v.decision, v.decided_at, v.decided_by_id from reply_versions v
               where v.author_id = :person and v.decided_by_id <> v.author_id
                 and ((${CAME_BACK}) or (v.state in ('published', 'superseded') and v.decided_at > now() - interval '${NEWS_DAYS} days'))),
            told as (
              select v.*, r.key, d.name as decided_by from decided v ${WITH_REPLY} join people d on d.id = v.decided_by_id where ${SHARED})
       select ${TO_CHECK} as "toCheck",
              (select count(*)::int from reply_versions v ${WITH_REPLY} where v.state = 'proposed' and v.author_id = :person and ${SHARED}) as waiting,
              ${told("state = 'sent back'")} as back, ${told("state <> 'sent back'")} as published`,
      accessParameters(viewer),
    ),
  );
}
