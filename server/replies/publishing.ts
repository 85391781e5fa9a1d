import type { EntityManager } from "@mikro-orm/postgresql";
import { z } from "zod";
import { checkReply } from "#core/checks/writing";
import { re2Patterns } from "#core/conditions/re2";
import { catalogue } from "#core/tokens/catalogue";
import { Reply, ReplyVersion } from "../db/entities/library";
import { Person } from "../db/entities/people";
import { idSchema } from "../edge";
import { Conflict, NotAllowed, NotFound, Unusable } from "../errors";
import { notify } from "../events/notify";
import { ownTokens } from "../house/settings";
import type { Viewer } from "../people/viewer";
import { findLockedReply, findReplyToKeep, type ReplyAccess } from "../access/replies";
import { asInput, contentsOf } from "./content";
import { fileReply } from "./filing";
import { publishedOf, readableVersion, refuseWrong, workingOf } from "./writing";
import { t } from "../words";

const remark = z
  .string()
  .trim()
  .max(2000, "At most 2,000 characters")
  .nullable()
  .transform((text) => (text === "" ? null : text));

/** What a person sends off: their working copy as it was saved last, and what they say about it. */
export const sendOffSchema = z.strictObject({ revision: idSchema, remark });
export type SendOff = z.infer<typeof sendOffSchema>;

/** With what a proposal is published: over which published version (null where there was none), and what is said to its author. */
export const proposalSchema = z.strictObject({ over: idSchema.nullable(), decision: remark });

/**
 * Publishes the viewer's working copy as the reply's new version, and files the reply as it says. Answers under way keep
 * the version that they took. Where only the filing is another, the version stays.
 * @returns the version's number
 * @throws NotAllowed; Conflict when another version was published since it was begun; Unusable when something in it is wrong
 */
export async function publishWorking(
  em: EntityManager,
  viewer: Viewer,
  key: string,
  { revision, remark }: SendOff,
  now: Date,
): Promise<number> {
  return em.transactional(async (inner) => {
    const reply = await findReplyToKeep(inner, viewer, key);
    const { filing = null } = (await workingOf(inner, viewer, reply.id)) ?? {};
    if (filing) await fileReply(inner, viewer, reply, filing, now);
    const working = await readyWorking(inner, viewer, reply, revision, now);
    const before = await publishedOf(inner, reply.id);
    if (filing && before && (await saySame(inner, before, working))) {
      // Its words are on the shelf already: they are no other version.
      await inner.remove(working).flush();
      return before.number ?? 0;
    }
    working.remark = remark;
    return publish(inner, viewer, reply, working, now);
  });
}

/**
 * Proposes the viewer's working copy: it waits for a curator and is never changed again.
 * @returns the version's number
 */
export async function proposeWorking(
  em: EntityManager,
  viewer: Viewer,
  key: string,
  { revision, remark }: SendOff,
  now: Date,
): Promise<number> {
  return em.transactional(async (inner) => {
    const reply = await findLockedReply(inner, viewer, key);
    if (reply.shelf.audience === "owner") throw new NotAllowed(t("onYourOwnShelfYouPublish"));
    const working = await readyWorking(inner, viewer, reply, revision, now);
    working.state = "proposed";
    working.remark = remark;
    working.number = await nextNumber(inner, reply.id);
    working.updatedAt = now;
    const row = await inner.findOneOrFail(Reply, { id: reply.id });
    if (row.state === "draft") row.state = "ready to check";
    row.updatedAt = now;
    await inner.flush();
    await notify(inner, { case: null, kind: "shelf" });
    return working.number;
  });
}

/**
 * Publishes a proposal.
 * @param over id of the published version that it was compared with; null where there was none
 * @throws NotAllowed; Conflict when it was decided, or another version was published, meanwhile
 */
export async function publishProposal(
  em: EntityManager,
  viewer: Viewer,
  key: string,
  versionId: number,
  over: number | null,
  decision: string | null,
  now: Date,
): Promise<number> {
  return em.transactional(async (inner) => {
    const reply = await findReplyToKeep(inner, viewer, key);
    const proposal = await waiting(inner, viewer, reply, versionId);
    const published = await publishedOf(inner, reply.id);
    if ((published?.id ?? null) !== over) throw new Conflict(t("meanwhileAnotherVersionWasPublishedCompare"));
    if (proposal.filing) await fileReply(inner, viewer, reply, proposal.filing, now);
    await refuseUnfit(inner, proposal, now);
    proposal.baseId = over;
    proposal.decision = decision;
    return publish(inner, viewer, reply, proposal, now);
  });
}

/** Sends a proposal back to its author with words about it. @throws NotAllowed; Conflict; Unusable without words */
export async function sendBack(
  em: EntityManager,
  viewer: Viewer,
  key: string,
  versionId: number,
  decision: string,
  now: Date,
): Promise<void> {
  await em.transactional(async (inner) => {
    const reply = await findReplyToKeep(inner, viewer, key);
    const proposal = await waiting(inner, viewer, reply, versionId);
    if (decision.trim() === "") throw new Unusable(t("sayWhatIsToBeChanged"));
    proposal.state = "sent back";
    decided(inner, proposal, viewer, now);
    proposal.decision = decision.trim();
    await inner.flush();
    const others = await inner.count(ReplyVersion, {
      reply: reply.id,
      state: { $in: ["proposed", "published"] },
    });
    const row = await inner.findOneOrFail(Reply, { id: reply.id });
    if (others === 0 && row.state === "ready to check") row.state = "draft";
    row.updatedAt = now;
    await inner.flush();
    await notify(inner, { case: null, kind: "shelf" });
  });
}

/**
 * Drops the viewer's working copy: it stays in the history, marked as dropped, and can be taken up again.
 * A reply that never was anything else is retired.
 */
export async function dropWorking(em: EntityManager, viewer: Viewer, key: string, now: Date): Promise<void> {
  await em.transactional(async (inner) => {
    const reply = await findLockedReply(inner, viewer, key);
    const working = await workingOf(inner, viewer, reply.id);
    if (!working) throw new NotFound(t("youHaveNoWorkingCopyOf"));
    working.state = "sent back";
    working.number = await nextNumber(inner, reply.id);
    working.decision = "dropped by its author";
    decided(inner, working, viewer, now);
    const row = await inner.findOneOrFail(Reply, { id: reply.id });
    if (row.state === "draft" && row.currentVersionId === working.id) row.state = "retired";
    await inner.flush();
  });
}

async function waiting(
  em: EntityManager,
  viewer: Viewer,
  reply: ReplyAccess,
  versionId: number,
): Promise<ReplyVersion> {
  const proposal = await readableVersion(em, viewer, reply, versionId);
  if (proposal.state !== "proposed") throw new Conflict(t("somebodyHasDecidedOnThisProposal"));
  return proposal;
}

async function readyWorking(
  em: EntityManager,
  viewer: Viewer,
  reply: ReplyAccess,
  revision: number,
  now: Date,
): Promise<ReplyVersion> {
  const working = await workingOf(em, viewer, reply.id);
  if (working?.revision !== revision) throw new Conflict(t("yourWorkingCopyWasChangedPublished"));
  const published = await publishedOf(em, reply.id);
  if (published && working.baseId !== published.id)
    throw new Conflict(t("somebodyPublishedAnotherVersionMeanwhileLook"));
  await refuseUnfit(em, working, now);
  return working;
}

async function refuseUnfit(em: EntityManager, version: ReplyVersion, now: Date): Promise<void> {
  const content = (await contentsOf(em, [version.id])).get(version.id);
  const reply = await em.findOneOrFail(Reply, { id: version.reply.id });
  if (!content || content.title.trim() === "") throw new Unusable(t("notYetItHasNoTitle"));
  const own = await ownTokens(em, now);
  const written = {
    part: reply.part,
    channels: reply.channels,
    about: { topics: reply.topics, withBooking: reply.withBooking },
    ...content,
  };
  const tokens = catalogue(own);
  refuseWrong(
    checkReply(written, { tokens, facts: own.houseFacts, patterns: re2Patterns, segments: null, now: null }),
  );
}

async function publish(
  em: EntityManager,
  viewer: Viewer,
  reply: ReplyAccess,
  version: ReplyVersion,
  now: Date,
): Promise<number> {
  const before = await publishedOf(em, reply.id);
  if (before) {
    before.state = "superseded";
    // One version at a time is published: the old one must go first.
    await em.flush();
  }
  version.state = "published";
  version.number ??= await nextNumber(em, reply.id);
  decided(em, version, viewer, now);
  version.updatedAt = now;
  const row = await em.findOneOrFail(Reply, { id: reply.id });
  row.title = version.title;
  row.currentVersionId = version.id;
  row.updatedAt = now;
  if (row.state !== "retired") row.state = "shelved";
  await em.flush();
  await notify(em, { case: null, kind: "shelf" });
  return version.number;
}

/** Whether two versions of a reply say the same. */
async function saySame(em: EntityManager, one: ReplyVersion, other: ReplyVersion): Promise<boolean> {
  const contents = await contentsOf(em, [one.id, other.id]);
  const [first, second] = [contents.get(one.id), contents.get(other.id)];
  return (
    first !== undefined &&
    second !== undefined &&
    JSON.stringify(asInput(first)) === JSON.stringify(asInput(second))
  );
}

function decided(em: EntityManager, version: ReplyVersion, viewer: Viewer, now: Date): void {
  version.decidedBy = em.getReference(Person, viewer.id);
  version.decidedAt = now;
}

async function nextNumber(em: EntityManager, replyId: number): Promise<number> {
  const last = await em.findOne(
    ReplyVersion,
    { reply: replyId, number: { $ne: null } },
    { orderBy: { number: "desc" }, fields: ["number"] },
  );
  return (last?.number ?? 0) + 1;
}
