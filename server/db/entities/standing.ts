import { defineEntity, p, type InferEntity } from "@mikro-orm/core";
import type { Condition } from "#core/conditions/condition";
import { ruleModes } from "#core/standing/rule";
import type { Effects } from "#core/standing/effects";
import type { Trigger } from "#core/standing/occasion";
import type { Rehearsed } from "#core/standing/tally";
import { Case } from "./cases";
import { Reply } from "./library";
import { Message } from "./messages";
import { Person } from "./people";

/** A rule that answers by itself, or prepares what a person then sends. */
export const StandingAnswer = defineEntity({
  name: "StandingAnswer",
  tableName: "standing_rules",
  properties: {
    id: p.integer().primary(),
    name: p.text(),
    reply: () => p.manyToOne(Reply).deleteRule("cascade"),
    /** Empty for any. */
    channels: p.array().default([]),
    /** By their ids; empty for any. */
    mailboxes: p.array(Number).default([]),
    /** When it is asked; null for the arrival of a message. */
    trigger: p.json<Trigger>().nullable(),
    /** Null for all that comes in there. */
    when: p.json<Condition>().nullable(),
    mode: p.enum([...ruleModes]).default("prepare"),
    /** What came before is none of its business; null while it is off. */
    switchedOnAt: p.datetime().nullable(),
    /** On whose behalf it answers. */
    switchedOnBy: () => p.manyToOne(Person).nullable().deleteRule("set null"),
    /** Why it is off, where it was not a person who switched it off. */
    offWhy: p.text().nullable(),
    oncePerSenderHours: p.integer().default(24),
    perHour: p.integer().default(60),
    stop: p.boolean().default(true),
    /** How long what it sends can be called back. */
    delayMinutes: p.integer().default(0),
    /** What else happens to the case that it is for. */
    effects: p.json<Effects>().defaultRaw("'{}'"),
    /** When it switches itself off; null for not at all. */
    until: p.datetime().nullable(),
    /** What it would have done, when that was looked at last; null for never. */
    rehearsed: p.json<Rehearsed>().nullable(),
    position: p.integer().default(0),
  },
});
export type StandingAnswer = InferEntity<typeof StandingAnswer>;

/** What a rule did with a message, and why. */
export const StandingDone = defineEntity({
  name: "StandingDone",
  tableName: "standing_done",
  uniques: [{ properties: ["rule", "message", "occasion"] }],
  indexes: [
    { properties: ["rule", "at"] },
    { properties: ["rule", "sender", "at"] },
    {
      name: "standing_done_sent",
      expression: `create index "standing_done_sent" on "standing_done" ("rule_id", "at") where "does" = 'send'`,
    },
  ],
  properties: {
    id: p.integer().primary(),
    rule: () => p.manyToOne(StandingAnswer).deleteRule("cascade"),
    message: () => p.manyToOne(Message).deleteRule("cascade").index(),
    case: () => p.manyToOne(Case).deleteRule("cascade").index(),
    sender: p.text(),
    /** What it was asked of: `arrival`, or what happened to the case and when. */
    occasion: p.text().default("arrival"),
    /** That it was not for it is kept of a silence alone, which is asked about again and again. */
    does: p.enum(["send", "prepare", "instead", "held", "passes"]),
    /** In words. */
    why: p.text(),
    at: p.datetime(),
  },
});
export type StandingDone = InferEntity<typeof StandingDone>;

/** What somebody said of a message: that a rule should answer it, or should not. */
export const StandingMark = defineEntity({
  name: "StandingMark",
  tableName: "standing_marks",
  uniques: [{ properties: ["rule", "message"] }],
  properties: {
    id: p.integer().primary(),
    rule: () => p.manyToOne(StandingAnswer).deleteRule("cascade"),
    message: () => p.manyToOne(Message).deleteRule("cascade"),
    should: p.boolean(),
    person: () => p.manyToOne(Person),
    at: p.datetime(),
  },
});
export type StandingMark = InferEntity<typeof StandingMark>;

/** What happened to a case that rules are still to be asked of; kept by the database, whoever changes the case. */
export const StandingOccasion = defineEntity({
  name: "StandingOccasion",
  tableName: "standing_occasions",
  properties: {
    id: p.integer().primary(),
    case: () => p.manyToOne(Case).deleteRule("cascade").index(),
    on: p.enum(["state", "topic", "owner"]),
    /** The state or topic that it came into; null for none. */
    into: p.text().nullable(),
    at: p.datetime(),
  },
});
export type StandingOccasion = InferEntity<typeof StandingOccasion>;
