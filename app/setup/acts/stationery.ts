import { stationerySchema } from "#core/forms/papers";
import { actionResult } from "#server/web/results";
import { readBody } from "#server/web/body";
import { saveStationery } from "#server/house/stationery";
import { signedIn } from "#server/web/context";
import { answerOrRefusal } from "../../ui/refusal";
import type { Route } from "./+types/stationery";

/** Keeps a team’s stationery. */
export async function action(args: Route.ActionArgs) {
  const { viewer, em } = await signedIn(args);
  return actionResult(async () => {
    await saveStationery(em, viewer, await readBody(args.request, stationerySchema));
    return {};
  });
}

export const clientAction = answerOrRefusal;
