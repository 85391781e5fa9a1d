import { defineEntity, p, type InferEntity } from "@mikro-orm/core";
import { noticeChanges, noticeWays } from "#core/notices/notice";
import { Case } from "./cases";
import { CaseChange } from "./changes";
import { Reply } from "./library";
import { Message } from "./messages";
import { Person } from "./people";
import { StandingDone } from "./standing";

/** A reply by which customers are told that their case changed. */
export const Notice = defineEntity({
  name: "Notice",
  tableName: "notices",
  properties: {
    id: p.integer().primary(),
    reply: () => p.manyToOne(Reply).deleteRule("cascade"),
    on: p.enum([...noticeChanges]),
    /** States or topics that a case comes into; empty for any. */
    into: p.array().default([]),
    /** By their ids; empty for any. */
    mailboxes: p.array(Number).default([]),
    /** Empty for any. */
    channels: p.array().default([]),
    way: p.enum([...noticeWays]),
    /** How long one that goes by itself can be called back. */
    minutes: p.integer().default(10),
    /** The first that fits counts. */
    position: p.integer().default(0),
  },
});
export type Notice = InferEntity<typeof Notice>;

/** What a change of a case came to: a notice that is offered, that goes, or that is held and why. */
export const CaseNotice = defineEntity({
  name: "CaseNotice",
  tableName: "case_notices",
  properties: {
    id: p.integer().primary(),
    case: () => p.manyToOne(Case).deleteRule("cascade").index(),
    notice: () => p.manyToOne(Notice).nullable().deleteRule("set null"),
    reply: () => p.manyToOne(Reply).deleteRule("cascade"),
    /** Who changed the case: on whose behalf it goes. */
    person: () => p.manyToOne(Person),
    on: p.enum([...noticeChanges, "arrival", "silence"]),
    /** What a standing answer did, where it is one's. */
    done: () => p.manyToOne(StandingDone).nullable().deleteRule("set null").index(),
    change: () => p.manyToOne(CaseChange).nullable().deleteRule("set null").index(),
    state: p.enum(["offered", "queued", "held", "answered", "declined", "called back"]),
    /** Why it is held, in words. */
    why: p.text().nullable(),
    /** The letter that it is, or that said it. */
    message: () => p.manyToOne(Message).nullable().deleteRule("set null").index(),
    at: p.datetime(),
  },
});
export type CaseNotice = InferEntity<typeof CaseNotice>;

/** How long a colleague was at a case, once; or by how much somebody set that right. */
export const TimeEntry = defineEntity({
  name: "TimeEntry",
  tableName: "time_entries",
  indexes: [{ properties: ["case", "person", "lastAt"] }],
  properties: {
    id: p.integer().primary(),
    case: () => p.manyToOne(Case).deleteRule("cascade"),
    person: () => p.manyToOne(Person),
    beganAt: p.datetime(),
    lastAt: p.datetime(),
    /** While the case was in sight. */
    openSeconds: p.integer().default(0),
    /** While it was in sight and something was done; below zero where a correction takes time away. */
    activeSeconds: p.integer().default(0),
    /** Who set it right; null for what was measured. */
    correctedBy: () => p.manyToOne(Person).nullable().deleteRule("set null"),
    reason: p.text().nullable(),
  },
});
export type TimeEntry = InferEntity<typeof TimeEntry>;
