import { actionResult } from "#server/web/results";
import { detachFromDraft } from "#server/answering/files";
import { idInPath } from "#server/edge";
import { signedIn } from "#server/web/context";
import { answerOrRefusal } from "../../ui/refusal";
import type { Route } from "./+types/remove-file";

/** Takes a file off the draft. */
export async function action(args: Route.ActionArgs) {
  const { viewer, em } = await signedIn(args);
  return actionResult(async () => {
    await detachFromDraft(em, viewer, idInPath.parse(args.params.attachment));
    return {};
  });
}

export const clientAction = answerOrRefusal;
