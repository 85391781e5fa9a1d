import * as z from "zod/mini";
import { idField, words } from "./fields";
import { addressField } from "./people";
import { t } from "../words/forms";

/** A mailbox of a team. */
export const mailboxSchema = z.strictObject({
  address: addressField,
  name: words(200, t.error("sayWhatItIsCalled")),
  team: idField,
  /** The team whose stationery its letters carry; null for its own team's. */
  stationery: z.nullable(idField),
  /** Keys of the replies that its first answers begin and end with; empty for the team's usual ones. */
  opening: z.string().check(z.maxLength(200)),
  closing: z.string().check(z.maxLength(200)),
  quotes: z.boolean(),
});
export type MailboxInput = z.infer<typeof mailboxSchema>;
