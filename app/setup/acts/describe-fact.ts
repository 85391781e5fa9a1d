import { actionResult } from "#server/web/results";
import { factDescriptionSchema } from "#core/forms/house";
import { describeFact } from "#server/house/facts";
import { readBody } from "#server/web/body";
import { signedIn } from "#server/web/context";
import { answerOrRefusal } from "../../ui/refusal";
import type { Route } from "./+types/describe-fact";

/** Says what a house fact is called, and who may change it. */
export async function action(args: Route.ActionArgs) {
  const { viewer, em } = await signedIn(args);
  return actionResult(async () => {
    await describeFact(em, viewer, args.params.key, await readBody(args.request, factDescriptionSchema));
    return {};
  });
}

export const clientAction = answerOrRefusal;
