import { declineNotice } from "#server/notices/of-case";
import { idInPath } from "#server/edge";
import { signedIn } from "#server/web/context";
import { actionResult } from "#server/web/results";
import { answerOrRefusal } from "../../ui/refusal";
import type { Route } from "./+types/decline-notice";

/** Lets a notice be. */
export async function action(args: Route.ActionArgs) {
  const { viewer, em, now } = await signedIn(args);
  return actionResult(async () => {
    await declineNotice(em, viewer, idInPath.parse(args.params.id), now);
    return {};
  });
}

export const clientAction = answerOrRefusal;
