import * as z from "zod/mini";
import { conditionSchema, type Condition } from "../conditions/condition";
import { noticeChannels } from "../notices/notice";
import { effectsSchema } from "../standing/effects";
import { silentOnes } from "../standing/occasion";
import { caseStates } from "../words/case-states";
import { t } from "../words/forms";
import { idField, words } from "./fields";

const MOST_OF_EACH = 200;
/** A year and a day, in hours. */
export const MOST_HOURS = 24 * 366;

const between = (least: number, most: number) =>
  z
    .int(t.error("aWholeNumber"))
    .check(
      z.minimum(least, t.error("fromTo", { least, most })),
      z.maximum(most, t.error("fromTo", { least, most })),
    );

const most = z.maxLength(MOST_OF_EACH);

/** When a rule is asked. */
const triggerSchema = z.discriminatedUnion("on", [
  z.strictObject({ on: z.literal("arrival") }),
  z.strictObject({ on: z.literal("state"), into: z.array(z.enum(caseStates)).check(most) }),
  z.strictObject({ on: z.literal("topic"), into: z.array(z.string()).check(most) }),
  z.strictObject({ on: z.literal("owner") }),
  z.strictObject({
    on: z.literal("silence"),
    of: z.enum(silentOnes),
    hours: between(1, MOST_HOURS),
  }),
]);

/** A rule as a lead sets it: which messages, which reply, and how often at most. */
export const standingSchema = z.strictObject({
  name: words(100, t.error("giveItAName")),
  /** Key of its reply. */
  reply: z.string().check(z.minLength(1, t.error("chooseAReply")), z.maxLength(200)),
  channels: z.array(z.enum(noticeChannels)),
  mailboxes: z.array(idField).check(z.maxLength(MOST_OF_EACH)),
  trigger: triggerSchema,
  // What a form holds is a condition already.
  when: z.nullable(conditionSchema as z.ZodMiniType<Condition, Condition>),
  oncePerSenderHours: between(0, MOST_HOURS),
  perHour: between(1, 10_000),
  /** How long what it sends can be called back. */
  delayMinutes: between(0, 24 * 60),
  stop: z.boolean(),
  effects: effectsSchema,
});
export type StandingInput = z.infer<typeof standingSchema>;
