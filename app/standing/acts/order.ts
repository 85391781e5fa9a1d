import { orderSchema } from "#server/house/answer-times";
import { orderRules } from "#server/standing/rules";
import { readBody } from "#server/web/body";
import { signedIn } from "#server/web/context";
import { actionResult } from "#server/web/results";
import { answerOrRefusal } from "../../ui/refusal";
import type { Route } from "./+types/order";

/** Puts rules into another order. */
export async function action(args: Route.ActionArgs) {
  const { viewer, em } = await signedIn(args);
  return actionResult(async () => {
    await orderRules(em, viewer, (await readBody(args.request, orderSchema)).ids);
    return {};
  });
}

export const clientAction = answerOrRefusal;
