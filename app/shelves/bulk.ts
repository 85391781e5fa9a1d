import { z } from "zod";
import { bulkSchema, changeInBulk, MOST_AT_ONCE, undoBulk } from "#server/replies/filing";
import { readFilter } from "#server/replies/filter";
import { answeringJson } from "#server/web/answers";
import { readBody } from "#server/web/body";
import { signedIn } from "#server/web/context";
import type { Route } from "./+types/bulk";
import { idSchema } from "#server/edge";

const body = z.union([
  z.strictObject({ undo: idSchema }),
  z.strictObject({ keys: z.array(z.string().max(200)).min(1).max(MOST_AT_ONCE), change: bulkSchema }),
  z.strictObject({ filter: z.string().max(2000), change: bulkSchema }),
]);

/** Changes many replies at once, or takes such a change back. */
export async function action(args: Route.ActionArgs) {
  const { viewer, em, now } = await signedIn(args);
  return answeringJson(async () => {
    const asked = await readBody(args.request, body);
    if ("undo" in asked) return undoBulk(em, viewer, asked.undo, now);
    const selection =
      "keys" in asked ? { keys: asked.keys } : { filter: readFilter(new URLSearchParams(asked.filter)) };
    return changeInBulk(em, viewer, selection, asked.change, now);
  });
}
