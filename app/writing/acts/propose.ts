import { actionResult } from "#server/web/results";
import { proposeWorking, sendOffSchema } from "#server/replies/publishing";
import { readBody } from "#server/web/body";
import { signedIn } from "#server/web/context";
import { answerOrRefusal } from "../../ui/refusal";
import type { Route } from "./+types/propose";

/** Proposes one’s working copy. */
export async function action(args: Route.ActionArgs) {
  const { viewer, em, now } = await signedIn(args);
  return actionResult(async () => {
    const asked = await readBody(args.request, sendOffSchema);
    return { number: await proposeWorking(em, viewer, args.params.key, asked, now) };
  });
}

export const clientAction = answerOrRefusal;
