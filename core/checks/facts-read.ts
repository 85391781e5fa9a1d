import type { Doc } from "../document/types";
import type { Slip } from "../compose/slip";
import { ownEntry } from "../tokens/own";
import type { Context } from "../tokens/context";
import { tokensUsed } from "./tokens-used";

/** What of a case changes while it is answered, whoever does it. */
const OF_CASE: ReadonlySet<string> = new Set(["state", "owner", "done", "promised", "next_date"]);

/** The rest of what a case says. */
export function steadyOf(details: Context["case"]): Context["case"] {
  return Object.fromEntries(
    Object.entries(details).filter(([key]) => !OF_CASE.has(key) && key !== "time_spent"),
  );
}

/**
 * What words read of the house's own, and of how their case stands: of all that a house knows and that colleagues do on a
 * case meanwhile, a letter depends on these values alone. Whoever was shown a letter knows by them whether it still reads
 * the same.
 * @returns by token: the value, null where there is none, and how it reads in other languages. As JSON keeps it
 */
export function factsRead(
  slips: Pick<Slip, "blanks" | "passages" | "document" | "subject">[],
  context: Pick<Context, "case" | "house" | "ask" | "written">,
): Record<string, unknown> {
  const names = slips.flatMap(({ blanks, passages, document, subject }) => [
    ...tokensUsed({ blanks, passages, variants: [{ document, subject }] }),
  ]);
  const read = names.toSorted().flatMap((name) => {
    const [group, key = ""] = name.split(".");
    if (group !== "house" && group !== "ask" && !(group === "case" && OF_CASE.has(key))) return [];
    const value = ownEntry(context[group], key) ?? null;
    return [[name, { value, written: ownEntry(context.written, name) ?? null }] as const];
  });
  return Object.fromEntries(read);
}

/** The same of documents that stand by themselves. */
export function factsReadBy(
  documents: Doc[],
  context: Parameters<typeof factsRead>[1],
): Record<string, unknown> {
  const bare = { blanks: {}, passages: {}, subject: null };
  return factsRead(
    documents.map((document) => ({ ...bare, document })),
    context,
  );
}
