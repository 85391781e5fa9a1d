import { actionResult } from "#server/web/results";
import { readBody } from "#server/web/body";
import { setUsual, usualSchema } from "#server/house/usual";
import { signedIn } from "#server/web/context";
import { answerOrRefusal } from "../../ui/refusal";
import type { Route } from "./+types/usual";

/** Chooses what a team’s first answers open or close with. */
export async function action(args: Route.ActionArgs) {
  const { viewer, em } = await signedIn(args);
  return actionResult(async () => {
    await setUsual(em, viewer, await readBody(args.request, usualSchema));
    return {};
  });
}

export const clientAction = answerOrRefusal;
