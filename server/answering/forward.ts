import type { EntityManager } from "@mikro-orm/postgresql";
import { z } from "zod";
import { bareSubject, oneLine } from "#core/mail/subject";
import { listed } from "#core/text/counted";
import { Attachment } from "../db/entities/answering";
import { CaseEvent } from "../db/entities/cases";
import { Message } from "../db/entities/messages";
import { Person } from "../db/entities/people";
import { NotFound, Unusable } from "../errors";
import { notify } from "../events/notify";
import { settingsOf, type Settings } from "../house/settings";
import type { Viewer } from "../people/viewer";
import { CALL_BACK_SECONDS, scheduleDelivery, takeBack } from "../sending/schedule";
import { caseByNumber } from "./open";
import { familiarOn } from "./people";
import { freshMessageId, mailboxOf } from "./sender";
import { t } from "../words";

export const forwardSchema = z.strictObject({
  to: z.email().max(254).toLowerCase(),
  /** Our own words above it. */
  words: z.string().max(20_000),
  withFiles: z.boolean(),
  /** Whether its sender saw that the address is new on the case, and wants it all the same. */
  confirmed: z.boolean(),
});

export type Forwarded =
  | { ok: true; message: number; dueAt: string }
  /** It waits for a confirmation. */
  | { ok: false; ask: string };

/**
 * Forwards a message of a case to somebody, as plain text below our own words, with or without its files. It leaves after
 * the time in which it can be called back. The case waits for whom it waited; what is answered to it comes to the case.
 * @throws NotFound; Unusable where the address is a mailbox of ours
 */
export async function forwardMessage(
  em: EntityManager,
  viewer: Viewer,
  messageId: number,
  input: z.infer<typeof forwardSchema>,
  now: Date,
): Promise<Forwarded> {
  return em.transactional(async (inner) => {
    const given = await inner.findOne(Message, { id: messageId }, { populate: ["case"] });
    if (!given) throw new NotFound(t("thisMessageIsNotOnThisCase"));
    const subject = await caseByNumber(inner, given.case.number);
    const settings = await settingsOf(inner);
    if (settings.mailboxes.has(input.to)) throw new Unusable(t("thisIsAMailboxOfOurs"), "to");
    const files = await inner.find(
      Attachment,
      { message: given },
      { orderBy: { position: "asc", id: "asc" }, populate: ["file"] },
    );
    if (given.text === "" && files.length === 0) throw new Unusable(t("onlyMailIsForwarded"), "to");
    const familiar = await familiarOn(inner, subject, settings);
    if (!input.confirmed && !familiar.includes(input.to))
      return {
        ok: false as const,
        ask: t("nobodyOnThisCaseKnows", { address: input.to, customer: subject.customer.displayName }),
      };
    const person = inner.getReference(Person, viewer.id);
    const dueAt = new Date(now.getTime() + CALL_BACK_SECONDS * 1000);
    const message = inner.create(Message, {
      case: subject,
      direction: "out",
      channel: "email",
      state: "due",
      kind: "forwarded",
      fromName: `${viewer.name}, ${subject.team.name}`,
      // A short message or a piece of a chat is forwarded by mail as well.
      fromAddress: mailboxOf(subject),
      toAddress: input.to,
      subject: oneLine(`Fwd: ${bareSubject(given.subject || subject.subject)}`),
      text: `${input.words.trim()}\n\n${forwardedText(given, input.withFiles ? files : [], settings)}`.trim(),
      html: null,
      language: given.language ?? null,
      messageId: freshMessageId(mailboxOf(subject)),
      references: [],
      person,
      at: now,
      dueAt,
    });
    if (input.withFiles)
      for (const { file, name, contentType, position } of files)
        inner.create(Attachment, { message, file, name, contentType, contentId: null, position });
    const data = { words: input.to };
    inner.create(CaseEvent, { case: subject, person, kind: "forwarded", data, at: now });
    await inner.flush();
    await scheduleDelivery(inner, message.id, dueAt);
    await notify(inner, { case: subject.number, kind: "message" });
    return { ok: true as const, message: message.id, dueAt: dueAt.toISOString() };
  });
}

/** A message as it stands below our words: who wrote it to whom, when, about what; then what it says. */
function forwardedText(given: Message, files: Attachment[], { house }: Settings): string {
  const day = new Intl.DateTimeFormat("en-GB", {
    dateStyle: "long",
    timeStyle: "short",
    timeZone: house.timeZone,
  }).format(given.at);
  const from = given.fromName === null ? given.fromAddress : `${given.fromName} <${given.fromAddress}>`;
  return [
    `-- ${t("aForwardedMessage")} --`,
    t("forwardedFrom", { from }),
    t("forwardedTo", { to: given.toAddress }),
    t("forwardedDate", { date: day }),
    t("forwardedSubject", { subject: given.subject }),
    ...(files.length === 0 ? [] : [t("forwardedFiles", { files: listed(files.map((one) => one.name)) })]),
    "",
    given.text,
  ].join("\n");
}

/**
 * Calls a forwarding letter back before it is due.
 * @returns the case's number
 * @throws NotFound; Conflict when it is too late
 */
export async function callForwardBack(
  em: EntityManager,
  viewer: Viewer,
  messageId: number,
  now: Date,
): Promise<number> {
  return em.transactional(async (inner) => {
    const message = await inner.findOne(
      Message,
      { id: messageId, person: viewer.id, kind: "forwarded" },
      { populate: ["case"] },
    );
    if (!message) throw new NotFound(t("thereIsNoSuchLetterOf"));
    await takeBack(inner, messageId, now);
    const person = inner.getReference(Person, viewer.id);
    inner.create(CaseEvent, { case: message.case, person, kind: "called back", data: {}, at: now });
    await inner.flush();
    await notify(inner, { case: message.case.number, kind: "message" });
    return message.case.number;
  });
}
