import { doneSchema, sayDone } from "#server/cases/done";
import { idInPath } from "#server/edge";
import { readBody } from "#server/web/body";
import { signedIn } from "#server/web/context";
import { actionResult } from "#server/web/results";
import { answerOrRefusal } from "../../ui/refusal";
import type { Route } from "./+types/done";

/** Says what was done on a case. */
export async function action(args: Route.ActionArgs) {
  const { viewer, em, now } = await signedIn(args);
  return actionResult(async () => {
    const done = await readBody(args.request, doneSchema);
    await sayDone(em, viewer, idInPath.parse(args.params.number), done, now);
    return {};
  });
}

export const clientAction = answerOrRefusal;
