import { z } from "zod";
import { idSchema } from "../edge";

/** Most replies of which is kept that the shelf offered them for a letter. */
const MOST_OFFERS = 60;

/** What the shelf offered for a draft, as the screen keeps it. */
export const offersSchema = z
  .array(
    z.strictObject({
      reply: z.string().min(1).max(120),
      versionId: idSchema,
      position: z.number().int().min(0).max(100_000),
      fit: z.number().min(0).max(1).nullable(),
      looked: z.boolean(),
      taken: z.boolean(),
    }),
  )
  .max(MOST_OFFERS);
