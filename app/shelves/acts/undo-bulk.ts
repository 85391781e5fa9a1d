import { actionResult } from "#server/web/results";
import { idInPath } from "#server/edge";
import { signedIn } from "#server/web/context";
import { undoBulk } from "#server/replies/filing";
import { answerOrRefusal } from "../../ui/refusal";
import type { Route } from "./+types/undo-bulk";

/** Takes a change of many replies back. */
export async function action(args: Route.ActionArgs) {
  const { viewer, em, now } = await signedIn(args);
  return actionResult(async () => {
    return undoBulk(em, viewer, idInPath.parse(args.params.id), now);
  });
}

export const clientAction = answerOrRefusal;
