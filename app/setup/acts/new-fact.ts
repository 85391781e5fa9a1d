import { actionResult } from "#server/web/results";
import { newFactSchema } from "#core/forms/house";
import { addFact } from "#server/house/facts";
import { readBody } from "#server/web/body";
import { signedIn } from "#server/web/context";
import { answerOrRefusal } from "../../ui/refusal";
import type { Route } from "./+types/new-fact";

/** Adds a house fact. */
export async function action(args: Route.ActionArgs) {
  const { viewer, em, now } = await signedIn(args);
  return actionResult(async () => {
    return { key: await addFact(em, viewer, await readBody(args.request, newFactSchema), now) };
  });
}

export const clientAction = answerOrRefusal;
