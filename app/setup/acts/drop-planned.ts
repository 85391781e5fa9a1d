import { actionResult } from "#server/web/results";
import { dropPlanned } from "#server/house/facts";
import { idInPath } from "#server/edge";
import { signedIn } from "#server/web/context";
import { answerOrRefusal } from "../../ui/refusal";
import type { Route } from "./+types/drop-planned";

/** Takes a value back that a house fact was to have. */
export async function action(args: Route.ActionArgs) {
  const { viewer, em, now } = await signedIn(args);
  return actionResult(async () => {
    await dropPlanned(em, viewer, args.params.key, idInPath.parse(args.params.id), now);
    return {};
  });
}

export const clientAction = answerOrRefusal;
