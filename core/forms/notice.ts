import * as z from "zod/mini";
import { noticeChanges, noticeChannels, noticeWays } from "../notices/notice";
import { caseStates, type CaseState } from "../words/case-states";
import { t } from "../words/forms";
import { MOST_ID } from "./fields";

/** Most minutes in which a notice can be called back: a day. */
const MOST_MINUTES = 24 * 60;
const MOST_OF_EACH = 200;

/** A notice as a lead sets it. */
export const noticeSchema = z.strictObject({
  /** Key of its reply. */
  reply: z.string().check(z.minLength(1, t.error("chooseAReply")), z.maxLength(200)),
  on: z.enum(noticeChanges),
  into: z.array(z.string().check(z.minLength(1), z.maxLength(100))).check(z.maxLength(MOST_OF_EACH)),
  mailboxes: z.array(z.int().check(z.minimum(1), z.maximum(MOST_ID))).check(z.maxLength(MOST_OF_EACH)),
  channels: z.array(z.enum(noticeChannels)),
  way: z.enum(noticeWays),
  minutes: z
    .int(t.error("aWholeNumberOfMinutes"))
    .check(z.minimum(1, t.error("aMinuteOrMore")), z.maximum(MOST_MINUTES, t.error("aDayAtMost"))),
});
export type NoticeInput = z.infer<typeof noticeSchema>;

const said = z.record(
  z.string().check(z.maxLength(35)),
  z.string().check(z.trim(), z.maxLength(100, t.error("atMostCharacters", { most: 100 }))),
);

/** What states are called to customers: by state, then by language. What is left empty is called as usual. */
export const stateWordsSchema = z.strictObject(
  Object.fromEntries(caseStates.map((state) => [state, said])) as Record<CaseState, typeof said>,
);
export type StateWordsInput = z.infer<typeof stateWordsSchema>;
