import { stepSchema } from "#core/forms/steps";
import { skipStep } from "#server/house/steps";
import { readBody } from "#server/web/body";
import { signedIn } from "#server/web/context";
import { actionResult } from "#server/web/results";
import { answerOrRefusal } from "../../ui/refusal";
import type { Route } from "./+types/skip-step";

/** Skips a step of setting up the house. */
export async function action(args: Route.ActionArgs) {
  const { viewer, em, now } = await signedIn(args);
  return actionResult(async () => {
    const { step } = await readBody(args.request, stepSchema);
    await skipStep(em, viewer, step, now);
    return {};
  });
}

export const clientAction = answerOrRefusal;
