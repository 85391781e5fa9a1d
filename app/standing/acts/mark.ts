import { z } from "zod";
import { idInPath, idSchema } from "#server/edge";
import { markMessage } from "#server/standing/marks";
import { readBody } from "#server/web/body";
import { signedIn } from "#server/web/context";
import { actionResult } from "#server/web/results";
import { answerOrRefusal } from "../../ui/refusal";
import type { Route } from "./+types/mark";

const asked = z.strictObject({ message: idSchema, should: z.boolean().nullable() });

/** Keeps whether a rule should answer a message. */
export async function action(args: Route.ActionArgs) {
  const { viewer, em, now } = await signedIn(args);
  return actionResult(async () => {
    const { message, should } = await readBody(args.request, asked);
    await markMessage(em, viewer, idInPath.parse(args.params.id), message, should, now);
    return {};
  });
}

export const clientAction = answerOrRefusal;
