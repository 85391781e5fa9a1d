import { orderSchema } from "#server/house/answer-times";
import { orderNotices } from "#server/notices/notices";
import { readBody } from "#server/web/body";
import { signedIn } from "#server/web/context";
import { actionResult } from "#server/web/results";
import { answerOrRefusal } from "../../ui/refusal";
import type { Route } from "./+types/order-notices";

/** Puts notices into another order. */
export async function action(args: Route.ActionArgs) {
  const { viewer, em } = await signedIn(args);
  return actionResult(async () => {
    await orderNotices(em, viewer, (await readBody(args.request, orderSchema)).ids);
    return {};
  });
}

export const clientAction = answerOrRefusal;
