import { actionResult } from "#server/web/results";
import { idInPath } from "#server/edge";
import { readBody } from "#server/web/body";
import { signedIn } from "#server/web/context";
import { workFrom } from "#server/replies/writing";
import { z } from "zod";
import { answerOrRefusal } from "../../ui/refusal";
import type { Route } from "./+types/work-from";

/** Makes an earlier version one’s working copy. */
export async function action(args: Route.ActionArgs) {
  const { viewer, em, now } = await signedIn(args);
  return actionResult(async () => {
    const { replace } = await readBody(args.request, z.strictObject({ replace: z.boolean() }));
    await workFrom(em, viewer, args.params.key, idInPath.parse(args.params.version), replace, now);
    return {};
  });
}

export const clientAction = answerOrRefusal;
