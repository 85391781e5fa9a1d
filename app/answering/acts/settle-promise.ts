import { idInPath } from "#server/edge";
import { outcomeSchema, settlePromise } from "#server/promises/promises";
import { readBody } from "#server/web/body";
import { signedIn } from "#server/web/context";
import { actionResult } from "#server/web/results";
import { answerOrRefusal } from "../../ui/refusal";
import type { Route } from "./+types/settle-promise";

/** Says what came of a promise. */
export async function action(args: Route.ActionArgs) {
  const { viewer, em, now } = await signedIn(args);
  return actionResult(async () => {
    const { outcome } = await readBody(args.request, outcomeSchema);
    await settlePromise(em, viewer, idInPath.parse(args.params.id), outcome, now);
    return {};
  });
}

export const clientAction = answerOrRefusal;
