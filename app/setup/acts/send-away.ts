import { successorSchema } from "#core/forms/people";
import { idInPath } from "#server/edge";
import { sendAway } from "#server/staff/colleagues";
import { readBody } from "#server/web/body";
import { signedIn } from "#server/web/context";
import { actionResult } from "#server/web/results";
import { answerOrRefusal } from "../../ui/refusal";
import type { Route } from "./+types/send-away";

/** Sends a colleague away; what is theirs goes to another. */
export async function action(args: Route.ActionArgs) {
  const { viewer, em, now } = await signedIn(args);
  return actionResult(async () => {
    const { successor } = await readBody(args.request, successorSchema);
    return sendAway(em, viewer, idInPath.parse(args.params.id), successor, now);
  });
}

export const clientAction = answerOrRefusal;
