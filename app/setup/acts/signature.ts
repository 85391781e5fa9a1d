import { keptSignatureSchema } from "#core/forms/papers";
import { actionResult } from "#server/web/results";
import { readBody } from "#server/web/body";
import { saveSignature } from "#server/house/signatures";
import { signedIn } from "#server/web/context";
import { answerOrRefusal } from "../../ui/refusal";
import type { Route } from "./+types/signature";

/** Keeps one’s own signature, or one that a team imposes. */
export async function action(args: Route.ActionArgs) {
  const { viewer, em } = await signedIn(args);
  return actionResult(async () => {
    const { team, document, language } = await readBody(args.request, keptSignatureSchema);
    await saveSignature(em, viewer, team, document, language);
    return {};
  });
}

export const clientAction = answerOrRefusal;
