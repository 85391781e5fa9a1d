import { idInPath } from "#server/edge";
import { makePromise, promiseSchema } from "#server/promises/promises";
import { readBody } from "#server/web/body";
import { signedIn } from "#server/web/context";
import { actionResult } from "#server/web/results";
import { answerOrRefusal } from "../../ui/refusal";
import type { Route } from "./+types/promise";

/** Keeps what a customer was promised. */
export async function action(args: Route.ActionArgs) {
  const { viewer, em, now } = await signedIn(args);
  return actionResult(async () => {
    const promised = await readBody(args.request, promiseSchema);
    return makePromise(em, viewer, idInPath.parse(args.params.number), promised, now);
  });
}

export const clientAction = answerOrRefusal;
