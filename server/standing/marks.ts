import type { EntityManager } from "@mikro-orm/postgresql";
import { Message } from "../db/entities/messages";
import { Person } from "../db/entities/people";
import { StandingAnswer, StandingMark } from "../db/entities/standing";
import { NotFound } from "../errors";
import { composeByItself } from "../notices/by-itself";
import { requireRole, type Viewer } from "../people/viewer";
import { t } from "../words";
import { ruleById } from "./rules";

/** A message that came in, with its case. @throws NotFound */
async function messageIn(em: EntityManager, id: number) {
  const message = await em.findOne(Message, { id, direction: "in" }, { populate: ["case"] });
  if (!message) throw new NotFound(t("thereIsNoSuchMessage"));
  return message;
}

/** What a rule would send for a message, as it would read today; and why it would not go. */
export interface AsSent {
  text: string;
  stops: string | null;
}

/** Composes what a rule would send for a message; nothing is kept. @throws NotAllowed unless lead; NotFound */
export async function asSent(
  em: EntityManager,
  viewer: Viewer,
  ruleId: number,
  messageId: number,
  now: Date,
): Promise<AsSent> {
  requireRole(viewer, "lead");
  const rule = await ruleById(em, ruleId);
  const { case: subject } = await messageIn(em, messageId);
  const composed = await composeByItself(em, viewer, subject, rule.reply.key, now);
  return typeof composed === "string"
    ? { text: "", stops: composed }
    : { text: composed.made.letter.text, stops: composed.stops };
}

/**
 * Keeps of a message whether a rule should answer it: it is tried on that whenever it is rehearsed. Whoever reads the case
 * may say so.
 * @param should null to take back what was said
 * @throws NotFound
 */
export async function markMessage(
  em: EntityManager,
  viewer: Viewer,
  ruleId: number,
  messageId: number,
  should: boolean | null,
  now: Date,
): Promise<void> {
  const rule = await ruleById(em, ruleId);
  const message = await messageIn(em, messageId);
  if (should === null) {
    await em.nativeDelete(StandingMark, { rule, message });
    return;
  }
  const person = em.getReference(Person, viewer.id);
  await em.upsert(
    StandingMark,
    { rule, message, should, person, at: now },
    { onConflictFields: ["rule", "message"], onConflictMergeFields: ["should", "person", "at"] },
  );
}

/** Rules by their names, in their order: those of which somebody may say that they should have answered. */
export async function namesOfRules(em: EntityManager): Promise<{ id: number; name: string }[]> {
  const rules = await em.find(StandingAnswer, {}, { orderBy: { position: "asc", id: "asc" } });
  return rules.map(({ id, name }) => ({ id, name }));
}
