import { sendTestLetter } from "#server/sending/outgoing";
import { signedIn } from "#server/web/context";
import { actionResult } from "#server/web/results";
import { answerOrRefusal } from "../../ui/refusal";
import type { Route } from "./+types/test-letter";

/** Sends a test letter to whoever asks. */
export async function action(args: Route.ActionArgs) {
  const { viewer, em, now } = await signedIn(args);
  return actionResult(async () => {
    return { to: await sendTestLetter(em, viewer, now) };
  });
}

export const clientAction = answerOrRefusal;
