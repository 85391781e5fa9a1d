import { fieldChangeSchema } from "#core/forms/house";
import { ownerSchema } from "#server/fields/values";
import { changeField } from "#server/fields/fields";
import { readBody } from "#server/web/body";
import { signedIn } from "#server/web/context";
import { actionResult } from "#server/web/results";
import { answerOrRefusal } from "../../ui/refusal";
import type { Route } from "./+types/change-field";

/** Calls a field otherwise, or asks for it otherwise. */
export async function action(args: Route.ActionArgs) {
  const { viewer, em } = await signedIn(args);
  return actionResult(async () => {
    const change = await readBody(args.request, fieldChangeSchema);
    await changeField(em, viewer, ownerSchema.parse(args.params.of), args.params.key, change);
    return {};
  });
}

export const clientAction = answerOrRefusal;
