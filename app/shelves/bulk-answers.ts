import * as z from "zod/mini";

/** What a change of several replies came to. */
export const done = z.object({
  id: z.nullable(z.number()),
  changed: z.number(),
  refused: z.number(),
  words: z.string(),
});

/** What became of it when it was taken back. */
export const undone = z.object({ undone: z.number(), stay: z.number() });
