import * as z from "zod/mini";

/** What the server refused, as it writes it. */
export const refusalShape = z.object({
  problem: z.string(),
  status: z.optional(z.number()),
  at: z.optional(z.string()),
});
