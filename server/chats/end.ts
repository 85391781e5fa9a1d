import { LockMode, type EntityManager } from "@mikro-orm/postgresql";
import { withCaseNumber } from "#core/mail/subject";
import { Chat } from "../db/entities/chats";
import { Case, CaseEvent } from "../db/entities/cases";
import { Message } from "../db/entities/messages";
import { CustomerAddress } from "../db/entities/customers";
import { Team } from "../db/entities/people";
import { setState } from "../cases/standing";
import { freshMessageId } from "../answering/sender";
import { notifyCase } from "../events/notify";
import { caseNumber, findHouse } from "../house/house";
import { scheduleDelivery } from "../sending/schedule";
import { t } from "../words";
import { tellRow } from "./door";
import { piecesAfter, tellChat, MOST_PIECES } from "./pieces";

/** A window that was not heard of for so long is closed for good. */
const SILENT_MINUTES = 15;

/**
 * Ends a chat, and sends the whole talk to the address that the customer gave. A case whose last word is ours is closed;
 * one that still waits for us is answered by mail from then on, where there is an address. Ended once, whoever asks again.
 */
export async function endChat(
  em: EntityManager,
  id: number,
  by: NonNullable<Chat["endedBy"]>,
  now: Date,
): Promise<void> {
  await em.transactional(async (inner) => {
    const chat = await inner.findOneOrFail(
      Chat,
      { id },
      { lockMode: LockMode.PESSIMISTIC_WRITE, populate: ["case"], refresh: true },
    );
    if (chat.state === "ended") return;
    const stoodInRow = chat.state === "waiting";
    const subject = await inner.findOneOrFail(Case, { id: chat.case.id }, { populate: ["team", "customer"] });
    chat.state = "ended";
    chat.endedAt = now;
    chat.endedBy = by;
    chat.waitingSince = null;
    inner.create(CaseEvent, {
      case: subject,
      person: chat.person ?? null,
      kind: "chat ended",
      data: {},
      at: now,
    });
    if (subject.status === "waiting on the customer") setState(subject, "settled");
    subject.updatedAt = now;
    await inner.flush();
    if (chat.email != null) await mailTalk(inner, chat, subject, chat.email, now);
    await tellChat(inner, chat, subject.number, { what: "state", by: by === "customer" ? "them" : "us" });
    if (stoodInRow) await tellRow(inner);
    await notifyCase(inner, subject.number, "message");
  });
}

/** Sends the talk as it was; what is still to be answered is answered there. */
async function mailTalk(
  em: EntityManager,
  chat: Chat,
  subject: Case,
  address: string,
  now: Date,
): Promise<void> {
  const team = await em.findOneOrFail(Team, { id: subject.team.id });
  const house = await findHouse(em);
  const label = caseNumber(house, subject.number);
  const time = new Intl.DateTimeFormat(house.language, { timeStyle: "short", timeZone: house.timeZone });
  const day = new Intl.DateTimeFormat(house.language, { dateStyle: "long", timeZone: house.timeZone });
  const pieces = await piecesAfter(em, chat.id, Math.max(0, chat.pieces - MOST_PIECES));
  const talk = pieces.map(
    ({ at, from, name, text }) =>
      `${time.format(new Date(at))} ${from === "us" ? (name ?? house.name) : (chat.name ?? t("youInTheTalk"))}: ${text}`,
  );
  const words = [
    t("thisIsOurTalkOfDay", { house: house.name, day: day.format(chat.openedAt), label }),
    talk.join("\n"),
    t("youMayAnswerThisMail"),
  ].join("\n\n");
  const message = em.create(Message, {
    case: subject,
    direction: "out",
    channel: "email",
    state: "due",
    fromName: `${team.name}, ${house.name}`,
    fromAddress: team.mailbox,
    toAddress: address,
    subject: withCaseNumber(t("ourTalkOfDay", { day: day.format(chat.openedAt) }), label),
    text: words,
    html: null,
    language: house.language,
    messageId: freshMessageId(team.mailbox),
    person: null,
    at: now,
    dueAt: now,
  });
  chat.mailedTo = address;
  // From here on the case goes on by mail.
  subject.channel = "email";
  const taken = await em.count(CustomerAddress, { channel: "email", address });
  if (taken === 0) em.create(CustomerAddress, { channel: "email", address, customer: subject.customer });
  await em.flush();
  await scheduleDelivery(em, message.id, now);
}

/** Ends chats whose windows are gone. @returns how many */
export async function endSilent(em: EntityManager, now: Date): Promise<number> {
  const silent = await em.find(
    Chat,
    { state: { $ne: "ended" }, seenAt: { $lt: new Date(now.getTime() - SILENT_MINUTES * 60_000) } },
    { fields: ["id"] },
  );
  for (const { id } of silent) await endChat(em.fork(), id, "silence", now);
  return silent.length;
}
