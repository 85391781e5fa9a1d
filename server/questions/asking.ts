import { randomBytes } from "node:crypto";
import type { EntityManager } from "@mikro-orm/postgresql";
import type { Letter } from "#core/compose/letter";
import { askedIn } from "#core/questions/question";
import type { Context } from "#core/tokens/context";
import { AskedQuestion } from "../db/entities/changes";
import type { Case } from "../db/entities/cases";
import { Question } from "../db/entities/mailboxes";
import type { Message } from "../db/entities/messages";
import { digestOf } from "../digest";
import { environment } from "../environment";
import type { Settings } from "../house/settings";
import { isSame, proofOf } from "../proof";

const DAY_MS = 24 * 60 * 60_000;

/** Bytes that nobody guesses, and characters of the proof behind them: short enough for a short message. */
const SECRET_BYTES = 12;
const PROOF_LENGTH = 12;

/** Where customers answer questions; null where nobody said at which address they reach us. */
function askingBase(): string | null {
  const { publicUrl, standins, port } = environment();
  if (publicUrl !== null) return publicUrl;
  return standins.on ? `http://localhost:${port}` : null;
}

/** A link as long as every one of them, for looking at a letter before it goes. */
const SAMPLE = `${"-".repeat(16)}.${"-".repeat(PROOF_LENGTH)}`;

/** What a letter reads for each question before it is sent: a link that leads nowhere yet, or that it has buttons. */
export function askingHere({ questions }: Pick<Settings, "questions">, channel: string): Context["ask"] {
  return placesOf(
    questions.map(({ key }) => [key, SAMPLE]),
    channel,
  );
}

/** Where questions are answered: by the links of their tokens, or beside the words; nowhere where no link can lead to us. */
function placesOf(tokens: (readonly [key: string, token: string])[], channel: string): Context["ask"] {
  if (channel === "chat") return Object.fromEntries(tokens.map(([key]) => [key, true]));
  const base = askingBase();
  if (base === null) return {};
  return Object.fromEntries(tokens.map(([key, token]) => [key, new URL(`/q/${token}`, base).href]));
}

/** The links by which a letter’s questions are answered. */
export interface Asking {
  /** For the context of the letter. */
  ask: Context["ask"];
  /** The tokens in them, by the questions’ keys. */
  tokens: Map<string, string>;
}

/** Links that no letter had before, one a question. */
export function freshAsking({ questions }: Pick<Settings, "questions">, channel: string): Asking {
  const fresh = questions.map(({ key }) => [key, freshToken()] as const);
  const ask = placesOf(fresh, channel);
  return { ask, tokens: new Map(fresh.filter(([key]) => key in ask)) };
}

function freshToken(): string {
  const secret = randomBytes(SECRET_BYTES).toString("base64url");
  return `${secret}.${proofOfSecret(secret)}`;
}

function proofOfSecret(secret: string): string {
  return proofOf(`question ${secret}`, "base64url").slice(0, PROOF_LENGTH);
}

/** The only form in which a token is stored; null for one that we never made. */
export function hashOfToken(token: string): string | null {
  const [, secret = "", proof = ""] = /^([\w-]{16})\.([\w-]{12})$/.exec(token) ?? [];
  return secret !== "" && isSame(proof, proofOfSecret(secret)) ? digestOf(Buffer.from(secret)) : null;
}

/** What is kept of the questions that a letter asks: until when, and by what its links are known. */
export function keepAsked(
  em: EntityManager,
  letter: Pick<Letter, "trace">,
  { tokens }: Asking,
  kept: { subject: Case; message: Message; settings: Pick<Settings, "questions">; now: Date },
): void {
  for (const key of askedIn(letter.trace)) {
    const question = kept.settings.questions.find((one) => one.key === key);
    const tokenHash = hashOfToken(tokens.get(key) ?? "");
    if (!question || tokenHash === null) continue;
    em.create(AskedQuestion, {
      question: em.getReference(Question, question.id),
      case: kept.subject,
      message: kept.message,
      tokenHash,
      expiresAt: new Date(kept.now.getTime() + question.days * DAY_MS),
      answeredAt: null,
      answer: null,
      remark: null,
    });
  }
}
