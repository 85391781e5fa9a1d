import * as z from "zod/mini";
import { words } from "./fields";
import { addressField } from "./people";
import { t } from "../words/forms";

/** A mail that no customer asked for: to whom, and about what. */
export const beginSchema = z.strictObject({
  address: addressField,
  subject: words(500, t.error("writeWhatItIsAbout")),
});
export type BeginInput = z.infer<typeof beginSchema>;
