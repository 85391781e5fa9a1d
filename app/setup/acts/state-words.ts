import { stateWordsSchema } from "#core/forms/notice";
import { saveStateWords } from "#server/notices/notices";
import { readBody } from "#server/web/body";
import { signedIn } from "#server/web/context";
import { actionResult } from "#server/web/results";
import { answerOrRefusal } from "../../ui/refusal";
import type { Route } from "./+types/state-words";

/** Keeps what states are called to customers. */
export async function action(args: Route.ActionArgs) {
  const { viewer, em } = await signedIn(args);
  return actionResult(async () => {
    await saveStateWords(em, viewer, await readBody(args.request, stateWordsSchema));
    return {};
  });
}

export const clientAction = answerOrRefusal;
