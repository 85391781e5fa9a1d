import { z } from "zod";
import { retireField } from "#server/fields/fields";
import { ownerSchema } from "#server/fields/values";
import { readBody } from "#server/web/body";
import { signedIn } from "#server/web/context";
import { actionResult } from "#server/web/results";
import { answerOrRefusal } from "../../ui/refusal";
import type { Route } from "./+types/retire-field";

const body = z.strictObject({ retired: z.boolean() });

/** Takes a field out of use, or back into it. */
export async function action(args: Route.ActionArgs) {
  const { viewer, em, now } = await signedIn(args);
  return actionResult(async () => {
    const { retired } = await readBody(args.request, body);
    await retireField(em, viewer, ownerSchema.parse(args.params.of), args.params.key, retired, now);
    return {};
  });
}

export const clientAction = answerOrRefusal;
