import { idInPath } from "#server/edge";
import { removeNotice } from "#server/notices/notices";
import { signedIn } from "#server/web/context";
import { actionResult } from "#server/web/results";
import { answerOrRefusal } from "../../ui/refusal";
import type { Route } from "./+types/remove-notice";

/** Takes a notice out. */
export async function action(args: Route.ActionArgs) {
  const { viewer, em } = await signedIn(args);
  return actionResult(async () => {
    await removeNotice(em, viewer, idInPath.parse(args.params.id));
    return {};
  });
}

export const clientAction = answerOrRefusal;
