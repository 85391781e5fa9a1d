import { houseSchema } from "#core/forms/house";
import { saveHouse } from "#server/house/house";
import { readBody } from "#server/web/body";
import { signedIn } from "#server/web/context";
import { actionResult } from "#server/web/results";
import { answerOrRefusal } from "../../ui/refusal";
import type { Route } from "./+types/house";

/** Changes the house. */
export async function action(args: Route.ActionArgs) {
  const { viewer, em, now } = await signedIn(args);
  return actionResult(async () => {
    await saveHouse(em, viewer, await readBody(args.request, houseSchema), now);
    return {};
  });
}

export const clientAction = answerOrRefusal;
