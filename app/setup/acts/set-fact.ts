import { actionResult } from "#server/web/results";
import { factValueSchema } from "#core/forms/house";
import { daySchema } from "#server/edge";
import { readBody } from "#server/web/body";
import { setFact } from "#server/house/facts";
import { signedIn } from "#server/web/context";
import { z } from "zod";
import { answerOrRefusal } from "../../ui/refusal";
import type { Route } from "./+types/set-fact";

const body = z.strictObject({
  ...factValueSchema.shape,
  from: daySchema.nullable(),
});

/** Gives a house fact another value, now or from a day on. */
export async function action(args: Route.ActionArgs) {
  const { viewer, em, now } = await signedIn(args);
  return actionResult(async () => {
    const { from, ...value } = await readBody(args.request, body);
    await setFact(em, viewer, args.params.key, value, from, now);
    return {};
  });
}

export const clientAction = answerOrRefusal;
