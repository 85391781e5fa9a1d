import { defineEntity, p, type InferEntity } from "@mikro-orm/core";
import type { FormField } from "#core/forms/contact";
import type { pressedStatuses } from "#core/questions/question";
import type { ForwarderMarks, ForwarderRules } from "#core/mail/forwarded";
import { Reply, Stationery } from "./library";
import { Team } from "./people";

/** An address that mail comes to and goes from; a team has its own, and may have others. */
export const Mailbox = defineEntity({
  name: "Mailbox",
  tableName: "mailboxes",
  properties: {
    id: p.integer().primary(),
    /** Lower case. */
    address: p.text().unique(),
    /** What it is called, for us and before its address. */
    name: p.text(),
    team: () => p.manyToOne(Team).deleteRule("cascade"),
    /** What its letters carry; null for the team's. */
    stationery: () => p.manyToOne(Stationery).nullable().deleteRule("set null"),
    /** What its first answers begin and end with; null for the team's usual ones. */
    opening: () => p.manyToOne(Reply).nullable().deleteRule("set null"),
    closing: () => p.manyToOne(Reply).nullable().deleteRule("set null"),
    /** Whether its answers quote what they answer. */
    quotes: p.boolean().default(false),
  },
});
export type Mailbox = InferEntity<typeof Mailbox>;

/** A form by which people write to us from a page. */
export const ContactForm = defineEntity({
  name: "ContactForm",
  tableName: "contact_forms",
  properties: {
    id: p.integer().primary(),
    /** In its address. */
    key: p.text().unique(),
    title: p.text(),
    intro: p.text().default(""),
    team: () => p.manyToOne(Team).deleteRule("cascade"),
    /** What it may be about; one is chosen where there are any. */
    topics: p.array().default([]),
    /** What it asks besides. */
    fields: p.json<FormField[]>().defaultRaw("'[]'"),
    asksBooking: p.boolean().default(true),
    takesFiles: p.boolean().default(true),
    /** What is said once it was sent. */
    thanks: p.text(),
    /** What goes to whoever wrote, at once; null for nothing. Tokens are filled. */
    firstMail: p.text().nullable(),
    isOn: p.boolean().default(true),
  },
});
export type ContactForm = InferEntity<typeof ContactForm>;

/** Whoever forwards other people's messages to a mailbox in a form of its own. */
export const Forwarder = defineEntity({
  name: "Forwarder",
  tableName: "forwarders",
  properties: {
    id: p.integer().primary(),
    name: p.text(),
    mailbox: () => p.manyToOne(Mailbox).deleteRule("cascade"),
    /** Address, or domain behind an @, that its mail comes from. Lower case. */
    sender: p.text(),
    /** A mail of its kind, as a lead marked it up. */
    example: p.text(),
    marks: p.json<ForwarderMarks>(),
    rules: p.json<ForwarderRules>(),
    isOn: p.boolean().default(false),
  },
});
export type Forwarder = InferEntity<typeof Forwarder>;

/** A question with fixed answers, which a reply asks by its token. */
export const Question = defineEntity({
  name: "Question",
  tableName: "questions",
  properties: {
    id: p.integer().primary(),
    key: p.text().unique(),
    words: p.text(),
    kind: p.enum(["scale", "choice", "date", "yes_no"]),
    options: p.array().default([]),
    takesRemark: p.boolean().default(false),
    /** For so many days it can be answered. */
    days: p.integer().default(30),
    /** What the case becomes when it is answered; null for what it is. */
    setsStatus: p.text().$type<(typeof pressedStatuses)[number]>().nullable(),
    setsTopic: p.text().nullable(),
  },
});
export type Question = InferEntity<typeof Question>;
