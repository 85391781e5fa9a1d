import * as z from "zod/mini";
import { REFERENCE } from "../details/reference";
import { tokenTypes } from "../tokens/catalogue";
import { t } from "../words/forms";

const MOST_HEADERS = 20;
const MOST_FIELDS = 100;
const MOST_ADDRESS = 1000;
const A_WEEK = 7 * 24 * 60;

const called = (most: number) =>
  z
    .string()
    .check(
      z.trim(),
      z.minLength(1, t.error("writeWhatItIsCalled")),
      z.maxLength(most, t.error("atMostCharacters", { most })),
    );
const whole = (least: number, most: number) =>
  z
    .int(t.error("aWholeNumber"))
    .check(
      z.minimum(least, t.error("fromTo", { least, most })),
      z.maximum(most, t.error("fromTo", { least, most })),
    );

/** What connections say by themselves. */
const NOT_OURS = ["host", "connection", "content-length", "transfer-encoding", "upgrade", "te", "trailer"];

/** Whether an address can be asked: of pages, with a reference in it behind its host. */
function isAskable(address: string): boolean {
  const [before = "", ...behind] = address.split(REFERENCE);
  if (behind.length === 0 || !/^https?:\/\/[^/]+\/|^https?:\/\/[^/?]+\?/.test(before)) return false;
  return URL.canParse(address.replaceAll(REFERENCE, "x"));
}

/** An outside system that is asked by a reference, as a lead sets it. */
export const sourceSchema = z.strictObject({
  name: called(80),
  address: z
    .string()
    .check(z.trim(), z.maxLength(MOST_ADDRESS), z.refine(isAskable, t.error("anAddressWithAReference"))),
  /** By which its references are found in messages; empty for none. */
  pattern: z.string().check(z.trim(), z.maxLength(500, t.error("atMostCharacters", { most: 500 }))),
  timeoutSeconds: whole(1, 30),
  cacheMinutes: whole(1, A_WEEK),
  headers: z
    .array(
      z.strictObject({
        name: z.string().check(
          z.trim(),
          z.regex(/^[A-Za-z0-9!#$%&'*+.^_`|~-]{1,100}$/, t.error("aHeader")),
          z.refine((name) => !NOT_OURS.includes(name.toLowerCase()), t.error("aHeaderOfTheConnection")),
        ),
        /** Empty where what was kept stays. */
        value: z.string().check(z.maxLength(4000), z.regex(/^[\t\x20-\x7e]*$/, t.error("aHeadersValue"))),
      }),
    )
    .check(z.maxLength(MOST_HEADERS)),
  fields: z
    .array(
      z.strictObject({
        /** Empty for a new one, which is named by what it is called. */
        key: z.string().check(z.maxLength(80)),
        label: called(80),
        type: z.enum(tokenTypes),
        path: z.string().check(z.trim(), z.minLength(1, t.error("writeItsPath")), z.maxLength(300)),
        /** Whether it is shown beside a case. */
        isShown: z.boolean(),
        always: z.boolean(),
      }),
    )
    .check(z.maxLength(MOST_FIELDS)),
});
export type SourceInput = z.infer<typeof sourceSchema>;
