import { filingSchema } from "#core/forms/library";
import { saveFiling } from "#server/replies/filing";
import { actionResult } from "#server/web/results";
import { readBody } from "#server/web/body";
import { signedIn } from "#server/web/context";
import { answerOrRefusal } from "../../ui/refusal";
import type { Route } from "./+types/filing";

/** Files a reply anew. */
export async function action(args: Route.ActionArgs) {
  const { viewer, em, now } = await signedIn(args);
  return actionResult(async () => ({
    changed: await saveFiling(em, viewer, args.params.key, await readBody(args.request, filingSchema), now),
  }));
}

export const clientAction = answerOrRefusal;
