import { idInPath } from "#server/edge";
import { removeQuestion } from "#server/questions/questions";
import { signedIn } from "#server/web/context";
import { actionResult } from "#server/web/results";
import { answerOrRefusal } from "../../ui/refusal";
import type { Route } from "./+types/remove-question";

/** Takes a question away. */
export async function action(args: Route.ActionArgs) {
  const { viewer, em } = await signedIn(args);
  return actionResult(async () => {
    await removeQuestion(em, viewer, idInPath.parse(args.params.id));
    return {};
  });
}

export const clientAction = answerOrRefusal;
