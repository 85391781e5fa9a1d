import { houseTimesSchema } from "#core/forms/answer-times";
import { saveHouseTimes } from "#server/house/answer-times";
import { readBody } from "#server/web/body";
import { signedIn } from "#server/web/context";
import { actionResult } from "#server/web/results";
import { answerOrRefusal } from "../../ui/refusal";
import type { Route } from "./+types/house-times";

/** Keeps what holds where no answer time says otherwise. */
export async function action(args: Route.ActionArgs) {
  const { viewer, em } = await signedIn(args);
  return actionResult(async () => {
    await saveHouseTimes(em, viewer, await readBody(args.request, houseTimesSchema));
    return {};
  });
}

export const clientAction = answerOrRefusal;
