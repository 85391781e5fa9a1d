import { trialSchema, trySource } from "#server/details/sources";
import { idInPath } from "#server/edge";
import { readBody } from "#server/web/body";
import { signedIn } from "#server/web/context";
import { actionResult } from "#server/web/results";
import { answerOrRefusal } from "../../ui/refusal";
import type { Route } from "./+types/try-source";

/** Tries a detail source on a case. */
export async function action(args: Route.ActionArgs) {
  const { viewer, em } = await signedIn(args);
  return actionResult(async () => {
    const { case: number } = await readBody(args.request, trialSchema);
    return trySource(em, viewer, idInPath.parse(args.params.id), number);
  });
}

export const clientAction = answerOrRefusal;
