import { changedPasswordSchema } from "#core/forms/people";
import { changePassword } from "#server/people/account";
import { readBody } from "#server/web/body";
import { signedIn } from "#server/web/context";
import { actionResult } from "#server/web/results";
import { answerOrRefusal } from "../../ui/refusal";
import type { Route } from "./+types/password";

/** Changes one's own password. */
export async function action(args: Route.ActionArgs) {
  const { viewer, em } = await signedIn(args);
  return actionResult(async () => {
    const input = await readBody(args.request, changedPasswordSchema);
    await changePassword(em, viewer, input, args.context.sessionId);
    return {};
  });
}

export const clientAction = answerOrRefusal;
