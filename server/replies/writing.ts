import { languageName, primary } from "#core/language/tag";
import type { FilingChange, NewReply } from "#core/forms/library";
import { readMarkdown } from "#core/formats/markdown";
import type { Doc } from "#core/document/types";
import type { EntityManager } from "@mikro-orm/postgresql";
import type { WriterFinding } from "#core/checks/written";
import { emptyDocument } from "#core/document/schema";
import { Person } from "../db/entities/people";
import { Reply, ReplyVersion, Shelf } from "../db/entities/library";
import { Conflict, NotFound, Unusable } from "../errors";
import { findHouse } from "../house/house";
import type { Viewer } from "../people/viewer";
import { findLockedReply, findReply, findShelfToPut, mayPublish, type ReplyAccess } from "../access/replies";
import { asInput, contentsOf, lendFiles, storeContent, type Content, type ContentInput } from "./content";
import { fileReply, isUnpublished, refuseFiling } from "./filing";
import { freeKey } from "./keys";
import { t } from "../words";

/** A save of a working copy. */
export interface WorkingSave {
  /** The revision that the screen's state rests on; 0 where there was no working copy. */
  revision: number;
  /** The version that it was begun from; null for a new reply. */
  baseId: number | null;
  content: ContentInput;
  /** How it is to be filed otherwise than it is; left out by who does not file it. */
  filing?: FilingChange | undefined;
}

/** The published version of a reply; null where none is. */
export function publishedOf(em: EntityManager, replyId: number): Promise<ReplyVersion | null> {
  return em.findOne(ReplyVersion, { reply: replyId, state: "published" });
}

/** The viewer's working copy of a reply; null where they have none. */
export function workingOf(em: EntityManager, viewer: Viewer, replyId: number): Promise<ReplyVersion | null> {
  return em.findOne(ReplyVersion, { reply: replyId, author: viewer.id, state: "draft" });
}

/**
 * Saves the viewer's working copy whole, beginning one where there is none.
 * @returns the revision it has now
 * @throws Conflict when it was saved or ended elsewhere since; NotFound; Unusable
 */
export async function saveWorking(
  em: EntityManager,
  viewer: Viewer,
  key: string,
  save: WorkingSave,
  now: Date,
): Promise<number> {
  return em.transactional(async (inner) => {
    const reply = await findLockedReply(inner, viewer, key);
    const known = await workingOf(inner, viewer, reply.id);
    if ((known?.revision ?? 0) !== save.revision) {
      throw new Conflict(known ? t("yourWorkingCopyWasChangedIn") : t("yourWorkingCopyWasPublishedProposed"));
    }
    const version = known ?? (await beginWorking(inner, viewer, reply, save.baseId));
    version.revision += 1;
    version.updatedAt = now;
    if (save.filing) await saveFiling(inner, viewer, reply, version, save.filing, now);
    await storeContent(inner, viewer, version, save.content);
    return version.revision;
  });
}

/** What nobody uses yet is filed at once; a reply on the shelf once its working copy is published. */
async function saveFiling(
  em: EntityManager,
  viewer: Viewer,
  reply: ReplyAccess,
  version: ReplyVersion,
  change: FilingChange,
  now: Date,
): Promise<void> {
  const isEmpty = Object.keys(change).length === 0;
  if (!isEmpty && isUnpublished(reply)) {
    await fileReply(em, viewer, reply, change, now);
    return;
  }
  if (!isEmpty) refuseFiling(viewer, reply);
  version.filing = isEmpty ? null : change;
}

async function beginWorking(
  em: EntityManager,
  viewer: Viewer,
  reply: ReplyAccess,
  baseId: number | null,
): Promise<ReplyVersion> {
  const base = baseId === null ? null : await em.findOne(ReplyVersion, { id: baseId, reply: reply.id });
  if (baseId !== null && !base) throw new Unusable(t("theVersionThatItWasBegun"));
  return em.create(ReplyVersion, {
    reply: em.getReference(Reply, reply.id),
    number: null,
    title: reply.title,
    state: "draft",
    blanks: {},
    passages: {},
    useTemplateSubject: false,
    author: em.getReference(Person, viewer.id),
    remark: null,
    baseId: base?.id ?? null,
    revision: 0,
    decidedBy: null,
    decidedAt: null,
    decision: null,
    filing: null,
  });
}

/**
 * Says that the viewer's working copy takes the published version into account: they have seen both.
 * @throws NotFound when there is no working copy; Conflict when yet another version was published
 */
export async function mergeOnto(
  em: EntityManager,
  viewer: Viewer,
  key: string,
  publishedId: number,
): Promise<void> {
  await em.transactional(async (inner) => {
    const reply = await findLockedReply(inner, viewer, key);
    const working = await workingOf(inner, viewer, reply.id);
    if (!working) throw new NotFound(t("youHaveNoWorkingCopyOf"));
    const published = await publishedOf(inner, reply.id);
    if (published?.id !== publishedId) throw new Conflict(t("meanwhileAnotherVersionWasPublishedLook"));
    working.baseId = publishedId;
  });
}

/** Where a new reply's words come from: nowhere, another reply, or words that were written. */
export type StartFrom = { reply: string } | { content: ContentInput } | { words: string } | null;

/**
 * Begins a reply as a working copy of the viewer's; nobody else uses it before it is published.
 * @returns its key
 * @throws NotFound; NotAllowed; Unusable
 */
export async function createReply(
  em: EntityManager,
  viewer: Viewer,
  input: NewReply,
  from: StartFrom,
  now: Date,
): Promise<string> {
  return em.transactional(async (inner) => {
    const shelf = await findShelfToPut(inner, viewer, input.shelf);
    const source = from && "reply" in from ? await findReply(inner, viewer, from.reply) : null;
    const copied = source ? await readableContent(inner, viewer, source) : null;
    if (copied) await lendFiles(inner, viewer, [...copied.files, ...copied.pictures]);
    const filing = source ? await inner.findOneOrFail(Reply, { id: source.id }) : null;
    const reply = inner.create(Reply, {
      key: await freeKey(inner, input.title),
      shelf: inner.getReference(Shelf, shelf.id),
      title: input.title,
      note: filing?.note ?? null,
      part: filing?.part ?? input.part,
      state: "draft",
      tags: filing?.tags ?? [],
      channels: filing?.channels ?? ["email", "chat"],
      topics: filing?.topics ?? [],
      withBooking: filing?.withBooking ?? false,
      owner: inner.getReference(Person, viewer.id),
      reviewBy: null,
      seasonFrom: null,
      seasonUntil: null,
      copiedFromId: source?.id ?? null,
      currentVersionId: null,
      updatedAt: now,
    });
    await inner.flush();
    const access: ReplyAccess = {
      id: reply.id,
      key: reply.key,
      title: reply.title,
      state: "draft",
      ownerId: viewer.id,
      currentVersionId: null,
      shelf,
      mayPublish: mayPublish(viewer, shelf),
    };
    const version = await beginWorking(inner, viewer, access, null);
    version.revision = 1;
    const house = await findHouse(inner);
    const content: ContentInput = copied
      ? asInput(copied)
      : from && "content" in from
        ? from.content
        : blankContent(
            input.title,
            primary(house.language),
            from && "words" in from ? readWords(from.words) : emptyDocument(),
          );
    await storeContent(inner, viewer, version, { ...content, title: input.title });
    reply.currentVersionId = version.id;
    return reply.key;
  });
}

/**
 * What the viewer reads of a reply: its published version; where it was never published their own working copy, or what
 * waits for whoever publishes. What a colleague is still writing is nobody else's.
 */
async function readableContent(em: EntityManager, viewer: Viewer, reply: ReplyAccess): Promise<Content> {
  const waiting = reply.mayPublish
    ? await em.findOne(ReplyVersion, { reply: reply.id, state: "proposed" }, { orderBy: { id: "desc" } })
    : null;
  const version = (await publishedOf(em, reply.id)) ?? (await workingOf(em, viewer, reply.id)) ?? waiting;
  const content = version ? (await contentsOf(em, [version.id])).get(version.id) : undefined;
  if (!content) throw new Unusable(t("thatReplyHasNoWordsThat"));
  return content;
}

/** The document of words that somebody has. @throws Unusable with the place that cannot be read */
function readWords(words: string): Doc {
  const { doc, problems } = readMarkdown(words);
  const [first] = problems;
  if (first) throw new Unusable(t("lineLineMessage", { line: first.line, message: first.message }), "words");
  return doc;
}

function blankContent(title: string, language: string, document: Doc): ContentInput {
  return {
    title,
    useTemplateSubject: false,
    blanks: {},
    passages: {},
    variants: [{ language, title: null, subject: null, document, original: null }],
    files: [],
  };
}

/**
 * Puts the words of another version into the viewer's working copy: to restore an old one, to work on
 * a proposal, or to take up what was sent back.
 * @throws Conflict when they have a working copy and did not say that it may be replaced
 */
export async function workFrom(
  em: EntityManager,
  viewer: Viewer,
  key: string,
  versionId: number,
  replace: boolean,
  now: Date,
): Promise<void> {
  await em.transactional(async (inner) => {
    const reply = await findLockedReply(inner, viewer, key);
    const source = await readableVersion(inner, viewer, reply, versionId);
    const known = await workingOf(inner, viewer, reply.id);
    if (known && !replace) throw new Conflict(t("youHaveAWorkingCopyOf"));
    const published = await publishedOf(inner, reply.id);
    const base =
      source.state === "published" || source.state === "superseded" ? published?.id : source.baseId;
    const working = known ?? (await beginWorking(inner, viewer, reply, base ?? null));
    working.baseId = base ?? null;
    working.revision += 1;
    working.updatedAt = now;
    const content = (await contentsOf(inner, [source.id])).get(source.id);
    if (!content) throw new NotFound(t("thereIsNoSuchVersion"));
    await lendFiles(inner, viewer, [...content.files, ...content.pictures]);
    await storeContent(inner, viewer, working, asInput(content));
  });
}

/**
 * A version of a reply that the viewer may read: what was published; their own; proposals for whoever publishes.
 * @throws NotFound
 */
export async function readableVersion(
  em: EntityManager,
  viewer: Viewer,
  reply: ReplyAccess,
  versionId: number,
): Promise<ReplyVersion> {
  const version = await em.findOne(
    ReplyVersion,
    { id: versionId, reply: reply.id },
    { populate: ["author", "decidedBy"] },
  );
  const mine = version?.author?.id === viewer.id;
  const open = version?.state === "published" || version?.state === "superseded";
  if (!version || !(mine || open || (reply.mayPublish && version.state !== "draft")))
    throw new NotFound(t("thereIsNoSuchVersion"));
  return version;
}

/** What is wrong with words that are to be published or proposed. @throws Unusable with the first of it */
export function refuseWrong(findings: WriterFinding[]): void {
  const wrong = findings.filter((finding) => finding.severity === "wrong");
  const [first] = wrong;
  if (!first) return;
  const message = first.language ? `${first.message} (${languageName(first.language)})` : first.message;
  const more = wrong.length - 1;
  throw new Unusable(more > 0 ? t("notYetAndMore", { message, count: more }) : t("notYet", { message }));
}
