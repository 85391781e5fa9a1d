import { z } from "zod";
import { standingSchema } from "#core/forms/standing";
import { idSchema } from "#server/edge";
import { saveRule } from "#server/standing/rules";
import { readBody } from "#server/web/body";
import { signedIn } from "#server/web/context";
import { actionResult } from "#server/web/results";
import { answerOrRefusal } from "../../ui/refusal";
import type { Route } from "./+types/save";

const asked = z.strictObject({ id: idSchema.nullable(), rule: standingSchema });

/** Makes a rule, or changes one. */
export async function action(args: Route.ActionArgs) {
  const { viewer, em } = await signedIn(args);
  return actionResult(async () => {
    const { id, rule } = await readBody(args.request, asked);
    return { id: await saveRule(em, viewer, id, rule) };
  });
}

export const clientAction = answerOrRefusal;
