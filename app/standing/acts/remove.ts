import { idInPath } from "#server/edge";
import { removeRule } from "#server/standing/rules";
import { signedIn } from "#server/web/context";
import { actionResult } from "#server/web/results";
import { answerOrRefusal } from "../../ui/refusal";
import type { Route } from "./+types/remove";

/** Takes a rule out. */
export async function action(args: Route.ActionArgs) {
  const { viewer, em } = await signedIn(args);
  return actionResult(async () => {
    await removeRule(em, viewer, idInPath.parse(args.params.id));
    return {};
  });
}

export const clientAction = answerOrRefusal;
