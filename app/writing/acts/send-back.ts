import { actionResult } from "#server/web/results";
import { idInPath } from "#server/edge";
import { readBody } from "#server/web/body";
import { sendBack } from "#server/replies/publishing";
import { signedIn } from "#server/web/context";
import { z } from "zod";
import { answerOrRefusal } from "../../ui/refusal";
import type { Route } from "./+types/send-back";

/** Sends a proposal back to its author, with a reason. */
export async function action(args: Route.ActionArgs) {
  const { viewer, em, now } = await signedIn(args);
  return actionResult(async () => {
    const { decision } = await readBody(args.request, z.strictObject({ decision: z.string().max(2000) }));
    await sendBack(em, viewer, args.params.key, idInPath.parse(args.params.version), decision, now);
    return {};
  });
}

export const clientAction = answerOrRefusal;
