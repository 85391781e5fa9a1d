import { z } from "zod";
import { contactFormSchema } from "#core/forms/contact";
import { saveForm } from "#server/contact/forms";
import { idSchema } from "#server/edge";
import { readBody } from "#server/web/body";
import { signedIn } from "#server/web/context";
import { actionResult } from "#server/web/results";
import { answerOrRefusal } from "../../ui/refusal";
import type { Route } from "./+types/form";

const asked = z.strictObject({ ...contactFormSchema.shape, id: idSchema.nullable() });

/** Makes a contact form, or changes one. */
export async function action(args: Route.ActionArgs) {
  const { viewer, em } = await signedIn(args);
  return actionResult(async () => {
    const { id, ...input } = await readBody(args.request, asked);
    return { id: await saveForm(em, viewer, id, input) };
  });
}

export const clientAction = answerOrRefusal;
