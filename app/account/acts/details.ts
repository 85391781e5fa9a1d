import { ownDetailsSchema } from "#core/forms/people";
import { saveOwn } from "#server/people/account";
import { readBody } from "#server/web/body";
import { signedIn } from "#server/web/context";
import { actionResult } from "#server/web/results";
import { answerOrRefusal } from "../../ui/refusal";
import type { Route } from "./+types/details";

/** Changes one's own details. */
export async function action(args: Route.ActionArgs) {
  const { viewer, em } = await signedIn(args);
  return actionResult(async () => {
    await saveOwn(em, viewer, await readBody(args.request, ownDetailsSchema));
    return {};
  });
}

export const clientAction = answerOrRefusal;
