import type { Doc } from "../document/types";
import type { Slip } from "../compose/slip";
import { ownEntry } from "../tokens/own";
import type { Context } from "../tokens/context";
import { tokensUsed } from "./tokens-used";

/**
 * What words read of the house's own: of all that a house knows, a letter depends on these values alone. Whoever was shown
 * a letter knows by them whether it still reads the same, whatever else the house changed meanwhile.
 * @returns by token: the value, null where there is none, and how it reads in other languages. As JSON keeps it
 */
export function factsRead(
  slips: Pick<Slip, "blanks" | "passages" | "document" | "subject">[],
  context: Pick<Context, "house" | "ask" | "written">,
): Record<string, unknown> {
  const names = slips.flatMap(({ blanks, passages, document, subject }) => [
    ...tokensUsed({ blanks, passages, variants: [{ document, subject }] }),
  ]);
  const read = names.toSorted().flatMap((name) => {
    const [group, key = ""] = name.split(".");
    if (group !== "house" && group !== "ask") return [];
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
