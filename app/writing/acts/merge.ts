import { actionResult } from "#server/web/results";
import { idInPath } from "#server/edge";
import { mergeOnto } from "#server/replies/writing";
import { signedIn } from "#server/web/context";
import { answerOrRefusal } from "../../ui/refusal";
import type { Route } from "./+types/merge";

/** Says that one’s working copy has taken in what was published meanwhile. */
export async function action(args: Route.ActionArgs) {
  const { viewer, em } = await signedIn(args);
  return actionResult(async () => {
    await mergeOnto(em, viewer, args.params.key, idInPath.parse(args.params.version));
    return {};
  });
}

export const clientAction = answerOrRefusal;
