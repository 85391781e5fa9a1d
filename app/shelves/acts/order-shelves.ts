import { actionResult } from "#server/web/results";
import { orderShelves } from "#server/replies/shelves";
import { readBody } from "#server/web/body";
import { signedIn } from "#server/web/context";
import { z } from "zod";
import { answerOrRefusal } from "../../ui/refusal";
import type { Route } from "./+types/order-shelves";

/** Puts the shared shelves into another order. */
export async function action(args: Route.ActionArgs) {
  const { viewer, em } = await signedIn(args);
  return actionResult(async () => {
    const { keys } = await readBody(args.request, z.strictObject({ keys: z.array(z.string()).max(1000) }));
    await orderShelves(em, viewer, keys);
    return {};
  });
}

export const clientAction = answerOrRefusal;
