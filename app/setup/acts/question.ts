import { questionSchema } from "#core/forms/question";
import { idSchema } from "#server/edge";
import { saveQuestion } from "#server/questions/questions";
import { readBody } from "#server/web/body";
import { signedIn } from "#server/web/context";
import { actionResult } from "#server/web/results";
import { z } from "zod";
import { answerOrRefusal } from "../../ui/refusal";
import type { Route } from "./+types/question";

const asked = z.strictObject({ id: idSchema.nullable(), question: questionSchema });

/** Makes a question with fixed answers, or changes one. */
export async function action(args: Route.ActionArgs) {
  const { viewer, em } = await signedIn(args);
  return actionResult(async () => {
    const { id, question } = await readBody(args.request, asked);
    return { id: await saveQuestion(em, viewer, id, question) };
  });
}

export const clientAction = answerOrRefusal;
