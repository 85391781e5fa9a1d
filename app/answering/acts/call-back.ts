import { z } from "zod";
import { callBack } from "#server/answering/call-back";
import { actionResult } from "#server/web/results";
import { signedIn } from "#server/web/context";
import { answerOrRefusal } from "../../ui/refusal";
import type { Route } from "./+types/call-back";
import { idInPath } from "#server/edge";

const params = z.object({ id: idInPath });

export async function action(args: Route.ActionArgs) {
  const { viewer, em, now } = await signedIn(args);
  return actionResult(async () => ({ case: await callBack(em, viewer, params.parse(args.params).id, now) }));
}

export const clientAction = answerOrRefusal;
