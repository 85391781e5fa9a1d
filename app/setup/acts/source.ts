import { z } from "zod";
import { sourceSchema } from "#core/forms/source";
import { saveSource } from "#server/details/sources";
import { idSchema } from "#server/edge";
import { readBody } from "#server/web/body";
import { signedIn } from "#server/web/context";
import { actionResult } from "#server/web/results";
import { answerOrRefusal } from "../../ui/refusal";
import type { Route } from "./+types/source";

const asked = z.strictObject({ id: idSchema.nullable(), source: sourceSchema });

/** Makes a detail source, or changes one. */
export async function action(args: Route.ActionArgs) {
  const { viewer, em } = await signedIn(args);
  return actionResult(async () => {
    const { id, source } = await readBody(args.request, asked);
    return { id: await saveSource(em, viewer, id, source) };
  });
}

export const clientAction = answerOrRefusal;
