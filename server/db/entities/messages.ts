import { defineEntity, p, type InferEntity } from "@mikro-orm/core";
import type { Copies } from "#core/mail/copies";
import type { MailPart } from "#core/mail/parts";
import { Case } from "./cases";
import { Chat } from "./chats";
import { StoredFile } from "./files";
import { Person } from "./people";

/** One reason to doubt a message’s sender, in words. */
export interface Doubt {
  /** No usable From: the envelope’s sender stands for it; or what a receiver that is trusted found (RFC 8601). */
  kind: "envelope" | "authentication" | "form";
  words: string;
}

/** What tells whether and whom to answer: the envelope’s sender (empty for nobody) and headers, their names in lower case. */
export interface Envelope {
  returnPath: string;
  headers: Record<string, string[]>;
}

export type MessageState = "received" | "due" | "sending" | "sent" | "refused" | "called back";

export const Message = defineEntity({
  name: "Message",
  tableName: "messages",
  uniques: [{ properties: ["chat", "piece"] }, { properties: ["chat", "pieceKey"] }],
  indexes: [
    { properties: ["case", "at"] },
    { properties: ["person", "at"] },
    { properties: ["at", "id"] },
    {
      name: "messages_seldom_channel",
      expression: `create index "messages_seldom_channel" on "messages" ("channel", "at", "id") where "channel" <> 'email'`,
    },
    {
      name: "messages_words",
      expression: `create index "messages_words" on "messages" using gin (to_tsvector('simple', "subject" || ' ' || "text"))`,
    },
    {
      name: "messages_sent",
      expression: `create index "messages_sent" on "messages" ("sent_at") where "direction" = 'out'`,
    },
    {
      name: "messages_due",
      expression: `create index "messages_due" on "messages" ("due_at") where "state" in ('due', 'sending')`,
    },
  ],
  properties: {
    id: p.integer().primary(),
    case: () => p.manyToOne(Case).deleteRule("cascade"),
    direction: p.enum(["in", "out"]),
    channel: p.enum(["email", "chat", "sms"]),
    state: p.enum(["received", "due", "sending", "sent", "refused", "called back"]),
    fromName: p.text().nullable(),
    fromAddress: p.text(),
    toAddress: p.text(),
    /** What it is beside a message that somebody wrote to us: answered by a program, sent to a list, a report of failure, an answer that was pressed; of ours, one that forwards another, or that went by itself when the case changed. */
    kind: p
      .enum(["message", "automatic", "list", "failure", "pressed", "forwarded", "notice"])
      .default("message"),
    /** Whom it went to besides; null for nobody. */
    copies: p.json<Copies>().nullable(),
    /** Parts of it that are told of: an invitation, a signature, words that are encrypted; null for none. */
    parts: p.json<MailPart[]>().nullable(),
    /** Where its sender asks answers to go, where that is another address. */
    replyTo: p.text().nullable(),
    /** What speaks against its being from whom it says; null where nothing does. */
    doubts: p.json<Doubt[]>().nullable(),
    /** What rules read of it beside its words; null for what did not come by mail. */
    envelope: p.json<Envelope>().nullable(),
    /** Only the beginning of its words is here: the raw message has all. */
    cut: p.boolean().default(false),
    subject: p.text(),
    text: p.text(),
    /** As it came or went; cleaned only when it is shown. */
    html: p.text().nullable(),
    language: p.text().nullable(),
    /** With angle brackets (RFC 5322, 3.6.4). */
    messageId: p.text().index().nullable(),
    references: p.array().default([]),
    /** The raw message as it was received or delivered. */
    raw: () => p.manyToOne(StoredFile).nullable(),
    person: () => p.manyToOne(Person).nullable(),
    at: p.datetime(),
    dueAt: p.datetime().nullable(),
    sentAt: p.datetime().nullable(),
    /** When the other side said that it has arrived; null where nothing says so. */
    deliveredAt: p.datetime().nullable(),
    /** Of a piece of a chat: the chat, its number there, the key that the window said it under, when it was read. */
    chat: () => p.manyToOne(Chat).nullable().deleteRule("set null"),
    piece: p.integer().nullable(),
    pieceKey: p.text().nullable(),
    readAt: p.datetime().nullable(),
    attempts: p.integer().default(0),
    /** The other server's words when it refused. */
    refusal: p.text().nullable(),
  },
});
export type Message = InferEntity<typeof Message>;
