import { idInPath } from "#server/edge";
import { removeTeam } from "#server/staff/teams";
import { signedIn } from "#server/web/context";
import { actionResult } from "#server/web/results";
import { answerOrRefusal } from "../../ui/refusal";
import type { Route } from "./+types/remove-team";

/** Removes a team. */
export async function action(args: Route.ActionArgs) {
  const { viewer, em } = await signedIn(args);
  return actionResult(async () => {
    await removeTeam(em, viewer, idInPath.parse(args.params.id));
    return {};
  });
}

export const clientAction = answerOrRefusal;
