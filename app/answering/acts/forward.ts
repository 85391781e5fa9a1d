import { forwardMessage, forwardSchema } from "#server/answering/forward";
import { idInPath } from "#server/edge";
import { readBody } from "#server/web/body";
import { signedIn } from "#server/web/context";
import { actionResult } from "#server/web/results";
import { answerOrRefusal } from "../../ui/refusal";
import type { Route } from "./+types/forward";

/** Forwards a message to somebody. */
export async function action(args: Route.ActionArgs) {
  const { viewer, em, now } = await signedIn(args);
  return actionResult(async () => {
    const input = await readBody(args.request, forwardSchema);
    return forwardMessage(em, viewer, idInPath.parse(args.params.id), input, now);
  });
}

export const clientAction = answerOrRefusal;
