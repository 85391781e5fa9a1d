import * as z from "zod/mini";
import { forwardedFields } from "../mail/forwarded";
import { idField, words } from "./fields";
import { t } from "../words/forms";

const span = z.nullable(z.strictObject({ from: z.int().check(z.gte(0)), to: z.int().check(z.gte(0)) }));

/** Whoever forwards buyers’ messages, as a lead keeps them. */
export const forwarderSchema = z.strictObject({
  name: words(80, t.error("sayWhatItIsCalled")),
  mailbox: idField,
  /** An address, or all of a domain, as in `@market.example.com`. */
  sender: z
    .string()
    .check(
      z.trim(),
      z.toLowerCase(),
      z.maxLength(254, t.error("atMostCharacters", { most: 254 })),
      z.regex(/^[^\s@]*@[a-z0-9-]+(?:\.[a-z0-9-]+)+$/, t.error("anAddressOrADomain")),
    ),
  example: z
    .string()
    .check(
      z.minLength(1, t.error("putOneOfItsMessagesHere")),
      z.maxLength(50_000, t.error("atMostCharacters", { most: 50_000 })),
    ),
  marks: z.strictObject(
    Object.fromEntries(forwardedFields.map((field) => [field, span])) as Record<
      (typeof forwardedFields)[number],
      typeof span
    >,
  ),
  rules: z.strictObject({
    noLinks: z.boolean(),
    noAddresses: z.boolean(),
    noNumbers: z.boolean(),
    most: z.nullable(
      z
        .int(t.error("aNumberOfCharacters"))
        .check(z.gte(20, t.error("aNumberOfCharacters")), z.lte(100_000, t.error("aNumberOfCharacters"))),
    ),
  }),
});
export type ForwarderInput = z.infer<typeof forwarderSchema>;
