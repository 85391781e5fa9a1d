import { actionResult } from "#server/web/results";
import { dropWorking } from "#server/replies/publishing";
import { signedIn } from "#server/web/context";
import { answerOrRefusal } from "../../ui/refusal";
import type { Route } from "./+types/drop";

/** Drops one’s working copy. */
export async function action(args: Route.ActionArgs) {
  const { viewer, em, now } = await signedIn(args);
  return actionResult(async () => {
    await dropWorking(em, viewer, args.params.key, now);
    return {};
  });
}

export const clientAction = answerOrRefusal;
