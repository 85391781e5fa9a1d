import type { EntityManager } from "@mikro-orm/postgresql";
import { textFor } from "#core/document/texts";
import { compareTexts } from "#core/document/compare";
import type { Doc } from "#core/document/types";
import { documentText } from "#core/document/walk";
import {
  LetterOffer,
  LetterReply,
  type Offer,
  type SentLetter,
  type WordEdit,
} from "../db/entities/answering";
import { Reply, ReplyVariant, ReplyVersion } from "../db/entities/library";
import type { DraftSlip, LoadedDraft } from "./draft";

/** The words that were changed in a reply, and their share of all, from 0 to 1. */
interface Edits {
  edits: WordEdit[];
  rewritten: number;
}

/** Compares what was sent of a reply with what stands on the shelf, word by word. */
export function editsOf(shelved: string, sent: string): Edits {
  const edits = compareTexts(shelved, sent);
  const words = (kinds: WordEdit["kind"][]) =>
    edits
      .filter(({ kind }) => kinds.includes(kind))
      .reduce((sum, { text }) => sum + (text.match(/[\p{L}\p{N}]+/gu)?.length ?? 0), 0);
  const changed = words(["added", "removed"]);
  const all = changed + 2 * words(["same"]);
  return { edits: changed === 0 ? [] : edits, rewritten: all === 0 ? 0 : changed / all };
}

/** Whether a letter was written by hand where it was likelier that nothing on the shelf fits than that anything does. */
export function isGap(slips: Pick<DraftSlip, "reply" | "part">[], offers: Pick<Offer, "fit">[]): boolean {
  if (slips.some((slip) => slip.reply !== null && slip.part === "answer")) return false;
  const fits = offers.map((one) => one.fit ?? 0);
  const nothing = 1 - fits.reduce((sum, fit) => sum + fit, 0);
  return nothing > Math.max(0, ...fits);
}

/** What the shelf offered for a letter, as a draft holds it. */
export async function offersOf(em: EntityManager, letter: SentLetter): Promise<Offer[]> {
  const offers = await em.find(LetterOffer, { letter }, { populate: ["reply"], orderBy: { id: "asc" } });
  return offers.flatMap(({ reply, version, position, fit, looked, taken }) =>
    version
      ? [
          {
            reply: reply.key,
            versionId: version.id,
            position,
            fit: fit == null ? null : Number(fit),
            looked,
            taken,
          },
        ]
      : [],
  );
}

/** The replies of slips as they stand on the shelf, in the version that was taken, by slip; own words have none. */
export async function shelvedDocuments(
  em: EntityManager,
  slips: readonly Pick<DraftSlip, "id" | "versionId" | "language">[],
  channel: string,
): Promise<Map<string, Doc>> {
  const versions = slips.flatMap((slip) => slip.versionId ?? []);
  const variants = await em.find(ReplyVariant, { version: { $in: versions } });
  return new Map(
    slips.flatMap((slip) => {
      const own = variants.filter((one) => one.version.id === slip.versionId);
      const variant = own.find((one) => one.language === slip.language) ?? own.find((one) => one.fallback);
      return variant ? [[slip.id, textFor(variant, channel)] as const] : [];
    }),
  );
}

/** Stores with a letter which replies it is made of, with their edits, and what the shelf offered for it. The caller flushes. */
export async function storeChoice(
  em: EntityManager,
  letter: SentLetter,
  draft: LoadedDraft,
  shelved: ReadonlyMap<string, Doc>,
  now: Date,
): Promise<void> {
  const { slips, offers } = draft;
  const keys = [
    ...new Set([...slips.flatMap((slip) => slip.reply ?? []), ...offers.map((one) => one.reply)]),
  ];
  const replies = new Map((await em.find(Reply, { key: { $in: keys } })).map((reply) => [reply.key, reply]));
  const versions = await em.find(
    ReplyVersion,
    { id: { $in: offers.map((one) => one.versionId) } },
    { fields: ["id"] },
  );
  for (const [position, slip] of slips.entries()) {
    const reply = replies.get(slip.reply ?? "");
    if (!reply) continue;
    const onShelf = shelved.get(slip.id);
    const { edits, rewritten } = onShelf
      ? editsOf(documentText(onShelf), documentText(slip.document))
      : { edits: null, rewritten: null };
    const version = slip.versionId === null ? null : em.getReference(ReplyVersion, slip.versionId);
    em.create(LetterReply, { letter, reply, position, at: now, version, edits, rewritten });
  }
  const sent = new Set(slips.map((slip) => slip.reply));
  for (const { reply: key, versionId, ...offer } of offers) {
    const reply = replies.get(key);
    if (!reply) continue;
    em.create(LetterOffer, {
      ...offer,
      letter,
      reply,
      version: versions.find((one) => one.id === versionId) ? em.getReference(ReplyVersion, versionId) : null,
      sent: sent.has(key),
      swapped: offer.taken && !sent.has(key),
    });
  }
}
