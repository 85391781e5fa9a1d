import { actionResult } from "#server/web/results";
import { publishWorking, sendOffSchema } from "#server/replies/publishing";
import { readBody } from "#server/web/body";
import { signedIn } from "#server/web/context";
import { answerOrRefusal } from "../../ui/refusal";
import type { Route } from "./+types/publish";

/** Publishes one’s working copy. */
export async function action(args: Route.ActionArgs) {
  const { viewer, em, now } = await signedIn(args);
  return actionResult(async () => {
    const asked = await readBody(args.request, sendOffSchema);
    return { number: await publishWorking(em, viewer, args.params.key, asked, now) };
  });
}

export const clientAction = answerOrRefusal;
