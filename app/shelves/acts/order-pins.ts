import { actionResult } from "#server/web/results";
import { orderPins } from "#server/replies/pins";
import { readBody } from "#server/web/body";
import { signedIn } from "#server/web/context";
import { z } from "zod";
import { answerOrRefusal } from "../../ui/refusal";
import type { Route } from "./+types/order-pins";

/** Puts what is within reach into another order. */
export async function action(args: Route.ActionArgs) {
  const { viewer, em } = await signedIn(args);
  return actionResult(async () => {
    const { keys } = await readBody(args.request, z.strictObject({ keys: z.array(z.string()).max(1000) }));
    await orderPins(em, viewer, keys);
    return {};
  });
}

export const clientAction = answerOrRefusal;
