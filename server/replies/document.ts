import { z } from "zod";
import { documentSchema } from "#core/document/schema";
import type { Doc } from "#core/document/types";
import { walk } from "#core/document/walk";
import { fileIdField } from "#core/forms/papers";

/** Most words of one document, in UTF-16 units: more is not found by search, and nobody reads it. */
const MOST_WORDS = 100_000;

/** A document as a screen sends it: its pictures are stored files, and its words can be searched. */
export const keptDocumentSchema: z.ZodType<Doc> = z.unknown().transform((value, context): Doc => {
  const read = documentSchema.safeParse(value);
  if (!read.success) {
    for (const { path, message } of read.error.issues)
      context.issues.push({ code: "custom", path, message, input: value });
    return z.NEVER;
  }
  let words = 0;
  let picture: string | null = null;
  walk(read.data, (node) => {
    if (node.type === "text") words += node.text.length;
    if (node.type === "image" && !fileIdField.safeParse(node.attrs.attachment).success)
      picture ??= node.attrs.attachment;
  });
  const refuse = (message: string) => context.issues.push({ code: "custom", message, input: value });
  if (words > MOST_WORDS) refuse(`At most ${MOST_WORDS.toLocaleString("en")} characters`);
  if (picture !== null) refuse("A picture in it is no stored file; insert it again");
  return read.data;
});
