import { colleagueSchema } from "#core/forms/people";
import { idInPath } from "#server/edge";
import { saveColleague } from "#server/staff/colleagues";
import { readBody } from "#server/web/body";
import { signedIn } from "#server/web/context";
import { actionResult } from "#server/web/results";
import { answerOrRefusal } from "../../ui/refusal";
import type { Route } from "./+types/colleague";

/** Changes a colleague. */
export async function action(args: Route.ActionArgs) {
  const { viewer, em } = await signedIn(args);
  return actionResult(async () => {
    const input = await readBody(args.request, colleagueSchema);
    await saveColleague(em, viewer, idInPath.parse(args.params.id), input);
    return {};
  });
}

export const clientAction = answerOrRefusal;
