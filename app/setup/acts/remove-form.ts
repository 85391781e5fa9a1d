import { removeForm } from "#server/contact/forms";
import { idInPath } from "#server/edge";
import { signedIn } from "#server/web/context";
import { actionResult } from "#server/web/results";
import { answerOrRefusal } from "../../ui/refusal";
import type { Route } from "./+types/remove-form";

/** Takes a contact form away. */
export async function action(args: Route.ActionArgs) {
  const { viewer, em } = await signedIn(args);
  return actionResult(async () => {
    await removeForm(em, viewer, idInPath.parse(args.params.id));
    return {};
  });
}

export const clientAction = answerOrRefusal;
