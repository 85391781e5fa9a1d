import { z } from "zod";
import { teamSchema } from "#core/forms/people";
import { idSchema } from "#server/edge";
import { saveTeam } from "#server/staff/teams";
import { readBody } from "#server/web/body";
import { signedIn } from "#server/web/context";
import { actionResult } from "#server/web/results";
import { answerOrRefusal } from "../../ui/refusal";
import type { Route } from "./+types/team";

const asked = z.strictObject({ ...teamSchema.shape, id: idSchema.nullable() });

/** Makes a team, or changes one. */
export async function action(args: Route.ActionArgs) {
  const { viewer, em, now } = await signedIn(args);
  return actionResult(async () => {
    const { id, ...input } = await readBody(args.request, asked);
    return { id: await saveTeam(em, viewer, id, input, now) };
  });
}

export const clientAction = answerOrRefusal;
