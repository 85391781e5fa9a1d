import { subDays } from "date-fns";
import type { EntityManager } from "@mikro-orm/postgresql";
import { LetterReply } from "../db/entities/answering";
import { Reply, ReplyVersion } from "../db/entities/library";
import { NotFound } from "../errors";
import { ownTokensOf, settingsOf, type OwnTokens } from "../house/settings";
import type { Viewer } from "../people/viewer";
import { surroundings } from "../answering/open";
import type { Written } from "#core/language/written";
import type { Stationery } from "#core/compose/stationery";
import type { Doc } from "#core/document/types";
import { findReply } from "../access/replies";
import { contentsOf, type Content } from "../replies/content";
import { eventsOf, type ReplyEventRow } from "../replies/events";
import { mayFile } from "../replies/filing";
import { knownWords } from "../replies/list";
import { listShelves, possibleOwners, type ShelfRow } from "../replies/shelves";
import { publishedOf, workingOf } from "../replies/writing";
import { versionsOf, type VersionRow } from "../replies/history";
import { t } from "../words";

/** The days of which a reply’s uses are counted. */
const USED_DAYS = 90;

/** How a reply is filed, as the form shows it. */
export interface Filing {
  shelf: string;
  note: string | null;
  part: "opening" | "answer" | "closing";
  tags: string[];
  channels: ("email" | "chat" | "sms")[];
  topics: string[];
  withBooking: boolean;
  owner: number | null;
  reviewBy: string | null;
  seasonFrom: string | null;
  seasonUntil: string | null;
}

/** All that Writing shows of a reply. */
export interface OpenReply {
  key: string;
  state: "draft" | "ready to check" | "shelved" | "retired";
  shelf: { key: string; name: string; mark: string; audience: string };
  mayPublish: boolean;
  /** Whether the viewer files it: who publishes, and the owner of one that was never published. */
  mayFile: boolean;
  /** As its working copy wants it. */
  filing: Filing;
  /** As it is. */
  filed: Filing;
  /** When it was changed last: ISO 8601 instant. */
  changed: string;
  /** The viewer's working copy, or what is published, or proposed. */
  content: Content;
  /** What is on the shelf, where the working copy may say something else. */
  onShelf: Content | null;
  /** Revision of the working copy; 0 without one. */
  revision: number;
  /** The version that the content rests on. */
  baseId: number | null;
  published: { id: number; number: number | null } | null;
  /** Whether another version was published since the working copy was begun. */
  overtaken: boolean;
  versions: VersionRow[];
  /** What became of it beside its words, the latest first. */
  events: ReplyEventRow[];
  /** Colleagues who have working copies. */
  others: string[];
  copiedFrom: { key: string; title: string } | null;
  uses: number;
  own: OwnTokens;
  signature: Written<Doc> | null;
  stationery: Stationery | null;
  known: { tags: string[]; topics: string[]; languages: string[] };
  shelves: ShelfRow[];
  owners: { id: number; name: string }[];
}

/** Opens a reply for writing. @throws NotFound */
export async function openReply(
  em: EntityManager,
  viewer: Viewer,
  key: string,
  now: Date,
): Promise<OpenReply> {
  const access = await findReply(em, viewer, key);
  const row = await em.findOneOrFail(Reply, { id: access.id });
  const published = await publishedOf(em, access.id);
  const working = await workingOf(em, viewer, access.id);
  const shown = working ?? published ?? (await newestOf(em, access.id));
  const contents = await contentsOf(em, [
    ...new Set([shown, working && published].flatMap((one) => one?.id ?? [])),
  ]);
  const content = shown ? contents.get(shown.id) : undefined;
  if (!shown || !content) throw new NotFound(t("nothingOfThisReplyIsFor"));
  const filed: Filing = {
    shelf: access.shelf.key,
    note: row.note ?? null,
    part: row.part,
    tags: row.tags,
    channels: row.channels.filter((one) => one === "email" || one === "chat" || one === "sms"),
    topics: row.topics,
    withBooking: row.withBooking,
    owner: access.ownerId,
    reviewBy: row.reviewBy ?? null,
    seasonFrom: row.seasonFrom ?? null,
    seasonUntil: row.seasonUntil ?? null,
  };
  const settings = await settingsOf(em);
  return {
    key,
    state: access.state,
    shelf: access.shelf,
    mayPublish: access.mayPublish,
    mayFile: mayFile(viewer, access),
    filing: { ...filed, ...working?.filing },
    filed,
    changed: row.updatedAt.toISOString(),
    content,
    onShelf: (working && published && contents.get(published.id)) ?? null,
    revision: working?.revision ?? 0,
    baseId: working ? (working.baseId ?? null) : (published?.id ?? shown.id),
    published: published && { id: published.id, number: published.number ?? null },
    overtaken: working !== null && published !== null && working.baseId !== published.id,
    versions: await versionsOf(em, viewer, access),
    events: await eventsOf(em, access.id),
    others: await othersAtWork(em, viewer, access.id),
    copiedFrom: await sourceOf(em, viewer, row.copiedFromId ?? null),
    uses: await usesOf(em, access.id, now),
    own: ownTokensOf(settings, now),
    ...surroundings(settings, viewer, { team: { id: viewer.teamId }, channel: "email" }),
    known: await knownWords(em, viewer),
    shelves: await listShelves(em, viewer),
    owners: await possibleOwners(em),
  };
}

/** The newest proposal: what there is of a reply that was never published. */
function newestOf(em: EntityManager, replyId: number): Promise<ReplyVersion | null> {
  return em.findOne(
    ReplyVersion,
    { reply: replyId, state: { $in: ["proposed", "sent back"] } },
    { orderBy: { id: "desc" } },
  );
}

async function othersAtWork(em: EntityManager, viewer: Viewer, replyId: number): Promise<string[]> {
  const copies = await em.find(
    ReplyVersion,
    { reply: replyId, state: "draft", author: { $ne: viewer.id } },
    { populate: ["author"], fields: ["author.name"], orderBy: { updatedAt: "desc" } },
  );
  return copies.flatMap(({ author }) => author?.name ?? []);
}

/** The reply that one was started from, where the viewer may read it. */
async function sourceOf(
  em: EntityManager,
  viewer: Viewer,
  id: number | null,
): Promise<{ key: string; title: string } | null> {
  if (id === null) return null;
  const source = await em.findOne(Reply, { id });
  if (!source) return null;
  try {
    const { key, title } = await findReply(em, viewer, source.key);
    return { key, title };
  } catch (error) {
    if (error instanceof NotFound) return null;
    throw error;
  }
}

function usesOf(em: EntityManager, replyId: number, now: Date): Promise<number> {
  return em.count(LetterReply, { reply: replyId, at: { $gt: subDays(now, USED_DAYS) } });
}
