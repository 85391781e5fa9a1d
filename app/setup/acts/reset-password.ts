import { idInPath } from "#server/edge";
import { resetPassword } from "#server/staff/colleagues";
import { publicBase, signedIn } from "#server/web/context";
import { actionResult } from "#server/web/results";
import { answerOrRefusal } from "../../ui/refusal";
import type { Route } from "./+types/reset-password";

/** Gives a colleague another link to choose a password by. */
export async function action(args: Route.ActionArgs) {
  const { viewer, em, now } = await signedIn(args);
  return actionResult(async () => {
    const id = idInPath.parse(args.params.id);
    return { link: await resetPassword(em, viewer, id, publicBase(args.request), now) };
  });
}

export const clientAction = answerOrRefusal;
