import { z } from "zod";
import { filingChangeSchema } from "#core/forms/library";
import { contentSchema } from "#server/replies/content";
import { saveWorking } from "#server/replies/writing";
import { actionResult } from "#server/web/results";
import { readBody } from "#server/web/body";
import { signedIn } from "#server/web/context";
import type { Route } from "./+types/save";
import { MOST_ID } from "#core/forms/fields";
import { idSchema } from "#server/edge";

const body = z.strictObject({
  revision: z.int().min(0).max(MOST_ID),
  baseId: idSchema.nullable(),
  content: contentSchema,
  filing: z.optional(filingChangeSchema),
});

/** Saves the working copy of a reply. */
export async function action(args: Route.ActionArgs) {
  const { viewer, em, now } = await signedIn(args);
  return actionResult(async () => ({
    version: await saveWorking(em, viewer, args.params.key, await readBody(args.request, body), now),
  }));
}
