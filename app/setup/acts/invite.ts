import { invitationSchema } from "#core/forms/people";
import { invite } from "#server/staff/colleagues";
import { readBody } from "#server/web/body";
import { publicBase, signedIn } from "#server/web/context";
import { actionResult } from "#server/web/results";
import { answerOrRefusal } from "../../ui/refusal";
import type { Route } from "./+types/invite";

/** Invites a colleague. */
export async function action(args: Route.ActionArgs) {
  const { viewer, em, now } = await signedIn(args);
  return actionResult(async () => {
    const input = await readBody(args.request, invitationSchema);
    return invite(em, viewer, input, publicBase(args.request), now);
  });
}

export const clientAction = answerOrRefusal;
