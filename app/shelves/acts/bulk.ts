import { actionResult } from "#server/web/results";
import { bulkSchema, changeInBulk, MOST_AT_ONCE } from "#server/replies/filing";
import { readBody } from "#server/web/body";
import { readFilter } from "#server/replies/filter";
import { signedIn } from "#server/web/context";
import { z } from "zod";
import { answerOrRefusal } from "../../ui/refusal";
import type { Route } from "./+types/bulk";

const body = z.union([
  z.strictObject({ keys: z.array(z.string().max(200)).min(1).max(MOST_AT_ONCE), change: bulkSchema }),
  z.strictObject({ filter: z.string().max(2000), change: bulkSchema }),
]);

/** Changes many replies at once. */
export async function action(args: Route.ActionArgs) {
  const { viewer, em, now } = await signedIn(args);
  return actionResult(async () => {
    const asked = await readBody(args.request, body);
    const selection =
      "keys" in asked ? { keys: asked.keys } : { filter: readFilter(new URLSearchParams(asked.filter)) };
    return changeInBulk(em, viewer, selection, asked.change, now);
  });
}

export const clientAction = answerOrRefusal;
