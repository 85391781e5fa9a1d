import { actionResult } from "#server/web/results";
import { newFieldSchema } from "#core/forms/house";
import { addField } from "#server/fields/fields";
import { readBody } from "#server/web/body";
import { signedIn } from "#server/web/context";
import { answerOrRefusal } from "../../ui/refusal";
import type { Route } from "./+types/new-field";

/** Adds a field. */
export async function action(args: Route.ActionArgs) {
  const { viewer, em } = await signedIn(args);
  return actionResult(async () => {
    return { key: await addField(em, viewer, await readBody(args.request, newFieldSchema)) };
  });
}

export const clientAction = answerOrRefusal;
