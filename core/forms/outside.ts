import * as z from "zod/mini";
import { words } from "./fields";
import { addressField } from "./people";
import { t } from "../words/forms";

/** A customer who is made up, to write to us as. */
export const customerSchema = z.strictObject({
  name: words(200, t.error("giveThemAName")),
  address: addressField,
});

/** An address for a name, of a domain that nobody has (RFC 2606); empty for a name without a letter. */
export function addressOf(name: string): string {
  const plain = name
    .normalize("NFKD")
    .replace(/\p{M}/gu, "")
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, ".")
    .replace(/^\.+|\.+$/g, "");
  return plain === "" ? "" : `${plain.slice(0, 64).replace(/\.+$/, "")}@example.org`;
}
