import { z } from "zod";
import { numberSchema } from "#core/forms/people";
import { idSchema } from "#server/edge";
import { saveNumber } from "#server/staff/numbers";
import { readBody } from "#server/web/body";
import { signedIn } from "#server/web/context";
import { actionResult } from "#server/web/results";
import { answerOrRefusal } from "../../ui/refusal";
import type { Route } from "./+types/number";

const asked = z.strictObject({ ...numberSchema.shape, id: idSchema.nullable() });

/** Gives a team a number, or changes one. */
export async function action(args: Route.ActionArgs) {
  const { viewer, em } = await signedIn(args);
  return actionResult(async () => {
    const { id, ...input } = await readBody(args.request, asked);
    return { id: await saveNumber(em, viewer, id, input) };
  });
}

export const clientAction = answerOrRefusal;
