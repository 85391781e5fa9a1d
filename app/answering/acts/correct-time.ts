import { correctionSchema, correctTime } from "#server/cases/time-spent";
import { idInPath } from "#server/edge";
import { readBody } from "#server/web/body";
import { signedIn } from "#server/web/context";
import { actionResult } from "#server/web/results";
import { answerOrRefusal } from "../../ui/refusal";
import type { Route } from "./+types/correct-time";

/** Sets right how long somebody was at a case. */
export async function action(args: Route.ActionArgs) {
  const { viewer, em, now } = await signedIn(args);
  return actionResult(async () => {
    const correction = await readBody(args.request, correctionSchema);
    await correctTime(em, viewer, idInPath.parse(args.params.number), correction, now);
    return {};
  });
}

export const clientAction = answerOrRefusal;
