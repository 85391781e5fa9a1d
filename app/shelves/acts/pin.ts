import { actionResult } from "#server/web/results";
import { readBody } from "#server/web/body";
import { setPin } from "#server/replies/pins";
import { signedIn } from "#server/web/context";
import { z } from "zod";
import { answerOrRefusal } from "../../ui/refusal";
import type { Route } from "./+types/pin";

/** Keeps a reply within reach, or not any more. */
export async function action(args: Route.ActionArgs) {
  const { viewer, em } = await signedIn(args);
  return actionResult(async () => {
    const { pinned } = await readBody(args.request, z.strictObject({ pinned: z.boolean() }));
    await setPin(em, viewer, args.params.key, pinned);
    return {};
  });
}

export const clientAction = answerOrRefusal;
