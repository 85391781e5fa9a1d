import type { EntityManager } from "@mikro-orm/postgresql";
import { caseContext } from "../answering/context";
import type { LoadedDraft } from "../answering/draft";
import { composeDraft, storeLetter, type ComposedDraft } from "../answering/letter";
import type { Case } from "../db/entities/cases";
import type { Message } from "../db/entities/messages";
import { Unusable } from "../errors";
import { settingsOf, type Settings } from "../house/settings";
import type { Viewer } from "../people/viewer";
import { keepAsked } from "../questions/asking";
import { t } from "../words";
import { draftOf } from "./draft";

/** A letter of one reply that nobody looks at before it goes. */
interface Going {
  subject: Case;
  /** Key of the reply. */
  reply: string;
  /** A notice that the case changed, or what a rule answers. */
  kind: "notice" | "automatic";
  dueAt: Date;
  now: Date;
}

/**
 * Composes a letter of one reply as it would go by itself; nothing is kept.
 * @returns with why the second look stops it, or null; why the reply cannot be one, in words
 */
export async function composeByItself(
  em: EntityManager,
  viewer: Viewer,
  subject: Case,
  reply: string,
  now: Date,
): Promise<{ settings: Settings; draft: LoadedDraft; made: ComposedDraft; stops: string | null } | string> {
  await em.populate(subject, ["customer.organisation", "team", "mailbox", "forwarder"]);
  const settings = await settingsOf(em);
  const { language } = await caseContext(em, viewer, subject, settings, now);
  const draft = await draftOf(em, settings, subject, reply, language);
  if (draft === null) return t("itIsNotForThisChannel");
  const made = await composeDraft(em, viewer, { subject, draft, settings }, now);
  const stop = made.checks.find(({ severity }) => severity === "stop");
  return { settings, draft, made, stops: stop?.message ?? null };
}

/**
 * Composes and stores a letter that goes by itself, on behalf of the viewer; its delivery is the caller's to queue.
 * @returns why it cannot go, in words, where the second look finds what stops it, or nobody is there to send it to
 */
export async function letterByItself(
  em: EntityManager,
  viewer: Viewer,
  { subject, reply, kind, dueAt, now }: Going,
): Promise<Message | string> {
  const composed = await composeByItself(em, viewer, subject, reply, now);
  if (typeof composed === "string") return composed;
  const { settings, draft, made, stops } = composed;
  const { recipient } = made;
  if (stops !== null) return stops;
  if (recipient === null) return t("nobodyToSendItTo");
  try {
    const message = await storeLetter(em, viewer, {
      ...made,
      ...{ subject, draft, settings, recipient, kind, dueAt, now },
    });
    keepAsked(em, made.letter, made.asking, { subject, message, settings, now });
    await em.flush();
    return message;
  } catch (error) {
    // A team without a number of its own sends no short messages.
    if (error instanceof Unusable) return error.message;
    throw error;
  }
}
