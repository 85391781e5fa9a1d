import { changeCase, changeSchema } from "#server/cases/changes";
import { idInPath } from "#server/edge";
import { readBody } from "#server/web/body";
import { signedIn } from "#server/web/context";
import { actionResult } from "#server/web/results";
import { answerOrRefusal } from "../../ui/refusal";
import type { Route } from "./+types/change";

/** Joins two cases, splits one, moves one or a message of it. */
export async function action(args: Route.ActionArgs) {
  const { viewer, em, now } = await signedIn(args);
  return actionResult(async () => {
    const change = await readBody(args.request, changeSchema);
    return changeCase(em, viewer, idInPath.parse(args.params.number), change, now);
  });
}

export const clientAction = answerOrRefusal;
