import { actionResult } from "#server/web/results";
import { factValueSchema } from "#core/forms/house";
import { factUses } from "#server/house/facts";
import { readBody } from "#server/web/body";
import { signedIn } from "#server/web/context";
import { answerOrRefusal } from "../../ui/refusal";
import type { Route } from "./+types/preview-fact";

/** How everything that uses a house fact would read with another value. */
export async function action(args: Route.ActionArgs) {
  const { viewer, em, now } = await signedIn(args);
  return actionResult(async () => {
    const value = await readBody(args.request, factValueSchema);
    return { uses: await factUses(em, viewer, args.params.key, value, now) };
  });
}

export const clientAction = answerOrRefusal;
