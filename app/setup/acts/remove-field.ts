import { actionResult } from "#server/web/results";
import { removeField } from "#server/fields/fields";
import { ownerSchema } from "#server/fields/values";
import { signedIn } from "#server/web/context";
import { answerOrRefusal } from "../../ui/refusal";
import type { Route } from "./+types/remove-field";

/** Removes a field that nothing reads. */
export async function action(args: Route.ActionArgs) {
  const { viewer, em } = await signedIn(args);
  return actionResult(async () => {
    await removeField(em, viewer, ownerSchema.parse(args.params.of), args.params.key);
    return {};
  });
}

export const clientAction = answerOrRefusal;
