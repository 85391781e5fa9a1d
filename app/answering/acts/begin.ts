import { beginSchema } from "#core/forms/begin";
import { beginCase } from "#server/cases/begin";
import { readBody } from "#server/web/body";
import { signedIn } from "#server/web/context";
import { actionResult } from "#server/web/results";
import { answerOrRefusal } from "../../ui/refusal";
import type { Route } from "./+types/begin";

/** Begins a mail to a customer, as a case of its own. */
export async function action(args: Route.ActionArgs) {
  const { viewer, em, now } = await signedIn(args);
  return actionResult(async () => beginCase(em, viewer, await readBody(args.request, beginSchema), now));
}

export const clientAction = answerOrRefusal;
