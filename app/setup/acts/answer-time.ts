import { answerTimeSchema } from "#core/forms/answer-times";
import { saveAnswerTime } from "#server/house/answer-times";
import { idSchema } from "#server/edge";
import { readBody } from "#server/web/body";
import { signedIn } from "#server/web/context";
import { actionResult } from "#server/web/results";
import { answerOrRefusal } from "../../ui/refusal";
import { z } from "zod";
import type { Route } from "./+types/answer-time";

const asked = z.strictObject({ id: idSchema.nullable(), time: answerTimeSchema });

/** Makes an answer time, or changes one. */
export async function action(args: Route.ActionArgs) {
  const { viewer, em } = await signedIn(args);
  return actionResult(async () => {
    const { id, time } = await readBody(args.request, asked);
    return { id: await saveAnswerTime(em, viewer, id, time) };
  });
}

export const clientAction = answerOrRefusal;
