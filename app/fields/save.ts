import { idInPath } from "#server/edge";
import { ownerSchema, setValues, valuesSchema } from "#server/fields/values";
import { readBody } from "#server/web/body";
import { signedIn } from "#server/web/context";
import { actionResult } from "#server/web/results";
import { answerOrRefusal } from "../ui/refusal";
import type { Route } from "./+types/save";

/** Fills fields in. */
export async function action(args: Route.ActionArgs) {
  const { viewer, em, now } = await signedIn(args);
  return actionResult(async () => {
    const { values } = await readBody(args.request, valuesSchema);
    const of = ownerSchema.parse(args.params.of);
    await setValues(em, viewer, of, idInPath.parse(args.params.id), values, now);
    return {};
  });
}

export const clientAction = answerOrRefusal;
