import { actionResult } from "#server/web/results";
import { idInPath } from "#server/edge";
import { personDetailsSchema } from "#core/forms/house";
import { savePersonDetails } from "#server/house/signatures";
import { readBody } from "#server/web/body";
import { signedIn } from "#server/web/context";
import { answerOrRefusal } from "../../ui/refusal";
import type { Route } from "./+types/person";

/** Keeps what letters say of a colleague. */
export async function action(args: Route.ActionArgs) {
  const { viewer, em } = await signedIn(args);
  return actionResult(async () => {
    const details = await readBody(args.request, personDetailsSchema);
    await savePersonDetails(em, viewer, idInPath.parse(args.params.id), details);
    return {};
  });
}

export const clientAction = answerOrRefusal;
