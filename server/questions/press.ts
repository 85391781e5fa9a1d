import { LockMode, type EntityManager, type FilterQuery } from "@mikro-orm/postgresql";
import { answerWords, readAnswer, type Answer, type AskedWords } from "#core/questions/question";
import { wellFormed } from "#core/text/well-formed";
import { nextPiece, tellChat } from "../chats/pieces";
import { Case, CaseEvent } from "../db/entities/cases";
import { AskedQuestion } from "../db/entities/changes";
import { Chat } from "../db/entities/chats";
import { Message } from "../db/entities/messages";
import { Conflict, NotFound, Unusable } from "../errors";
import { notifyCase } from "../events/notify";
import { findHouse } from "../house/house";
import { awaitAnswer, setStill } from "../cases/standing";
import { hashOfToken } from "./asking";
import { t } from "../words";

/** Longest remark, in UTF-16 units. */
export const MOST_REMARK = 2000;

/** A question as somebody who was asked sees it. */
export interface Asked extends AskedWords {
  house: string;
  /** What was pressed, in words; null for nothing yet. */
  answer: string | null;
  /** Whether it is too late to answer. */
  expired: boolean;
}

/** The question of a link; looking at it changes nothing, whoever does. @throws NotFound for a link that we never made, or whose case is gone */
export async function openQuestion(em: EntityManager, token: string, now: Date): Promise<Asked> {
  const asked = await findAsked(em, byToken(token));
  const house = await findHouse(em);
  const { words, kind, options, takesRemark } = asked.question;
  return {
    ...{ words, kind, options, takesRemark },
    house: house.name,
    answer: asked.answer == null ? null : answerWords(kind, asked.answer, house.language),
    expired: asked.answeredAt === null && asked.expiresAt <= now,
  };
}

/** What is pressed: an answer of the question, and a remark where it takes one. */
export interface Pressed {
  answer: string;
  remark: string;
}

/** Presses an answer by a link. @throws NotFound; Unusable where it is none; Conflict once answered, or too late */
export async function pressByLink(
  em: EntityManager,
  token: string,
  pressed: Pressed,
  now: Date,
): Promise<void> {
  await press(em, byToken(token), pressed, now);
}

/** Presses an answer beside a piece of a chat. @param chat the window’s own */
export async function pressInChat(
  em: EntityManager,
  chat: number,
  asked: number,
  pressed: Pressed,
  now: Date,
): Promise<void> {
  await press(em, { id: asked, message: { chat } }, pressed, now);
}

function byToken(token: string): FilterQuery<AskedQuestion> {
  const tokenHash = hashOfToken(token);
  if (tokenHash === null) throw new NotFound(t("thereIsNoSuchQuestionAny"));
  return { tokenHash };
}

async function findAsked(em: EntityManager, where: FilterQuery<AskedQuestion>, lock = false) {
  const asked = await em.findOne(AskedQuestion, where, lock ? { lockMode: LockMode.PESSIMISTIC_WRITE } : {});
  if (!asked) throw new NotFound(t("thereIsNoSuchQuestionAny"));
  await em.populate(asked, ["question", "case", "message"]);
  return asked as typeof asked & { question: AskedQuestion["question"] & AskedWords };
}

async function press(
  em: EntityManager,
  where: FilterQuery<AskedQuestion>,
  { answer: given, remark: said }: Pressed,
  now: Date,
): Promise<void> {
  await em.transactional(async (inner) => {
    const asked = await findAsked(inner, where, true);
    if (asked.answeredAt !== null) throw new Conflict(t("thisWasAnsweredAlready"));
    if (asked.expiresAt <= now) throw new Conflict(t("itIsTooLateToAnswerThis"));
    const { question } = asked;
    const answer = readAnswer(question, given);
    if (answer === null) throw new Unusable(t("chooseOneOfTheAnswers"), "answer");
    const remark = question.takesRemark ? wellFormed(said.replaceAll("\u0000", "")).trim() : "";
    if (remark.length > MOST_REMARK)
      throw new Unusable(t("thatIsTooLongAtMost", { most: "2,000" }), "remark");
    Object.assign(asked, { answer, remark: remark === "" ? null : remark, answeredAt: now });
    await comesBack(inner, asked, answer, remark, now);
  });
}

/** The answer comes to the case: a message of its own kind, and what the question sets. */
async function comesBack(
  em: EntityManager,
  asked: Awaited<ReturnType<typeof findAsked>>,
  answer: Answer,
  remark: string,
  now: Date,
): Promise<void> {
  const { question, message: letter } = asked;
  const subject = await em.findOneOrFail(
    Case,
    { id: asked.case.id },
    { lockMode: LockMode.PESSIMISTIC_WRITE },
  );
  await em.populate(subject, ["customer"]);
  const { language } = await findHouse(em);
  const words = answerWords(question.kind, answer, subject.language ?? language);
  const message = em.create(Message, {
    case: subject,
    direction: "in",
    channel: letter?.channel ?? subject.channel,
    state: "received",
    kind: "pressed",
    fromName: subject.customer.displayName,
    fromAddress: letter?.toAddress ?? "",
    toAddress: letter?.fromAddress ?? "",
    subject: "",
    text: [`${question.words} ${words}`, remark].filter((line) => line !== "").join("\n\n"),
    html: null,
    language: null,
    messageId: null,
    person: null,
    at: now,
  });
  const chat = letter?.chat ? await em.findOne(Chat, { id: letter.chat.id }) : null;
  if (chat) Object.assign(message, { chat, piece: await nextPiece(em, chat.id) });
  if (question.setsTopic != null) subject.topic = question.setsTopic;
  if (question.setsStatus === "waiting") await awaitAnswer(em, subject, now);
  else if (question.setsStatus != null)
    setStill(subject, question.setsStatus === "aside" ? "set aside" : "settled", now);
  subject.updatedAt = now;
  em.create(CaseEvent, { case: subject, person: null, kind: "pressed", data: { words }, at: now });
  await em.flush();
  if (chat) await tellChat(em, chat, subject.number, { what: "pieces", by: "them" });
  await notifyCase(em, subject.number, "message");
}
