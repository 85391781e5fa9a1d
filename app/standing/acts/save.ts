import { z } from "zod";
import { standingSchema } from "#core/forms/standing";
import { idSchema } from "#server/edge";
import { clashesOf } from "#server/standing/clashes";
import { saveRule } from "#server/standing/rules";
import { readBody } from "#server/web/body";
import { signedIn } from "#server/web/context";
import { actionResult } from "#server/web/results";
import { answerOrRefusal } from "../../ui/refusal";
import type { Route } from "./+types/save";

const asked = z.strictObject({ id: idSchema.nullable(), rule: standingSchema });

/** Makes a rule, or changes one; says which others are for the same. */
export async function action(args: Route.ActionArgs) {
  const { viewer, em, now } = await signedIn(args);
  return actionResult(async () => {
    const { id, rule } = await readBody(args.request, asked);
    const saved = await saveRule(em, viewer, id, rule);
    return { id: saved, clashes: await clashesOf(em, saved, now) };
  });
}

export const clientAction = answerOrRefusal;
