import { z } from "zod";
import { mailboxSchema } from "#core/forms/mailboxes";
import { idSchema } from "#server/edge";
import { saveMailbox } from "#server/staff/mailboxes";
import { readBody } from "#server/web/body";
import { signedIn } from "#server/web/context";
import { actionResult } from "#server/web/results";
import { answerOrRefusal } from "../../ui/refusal";
import type { Route } from "./+types/mailbox";

const asked = z.strictObject({ ...mailboxSchema.shape, id: idSchema.nullable() });

/** Makes a mailbox, or changes one. */
export async function action(args: Route.ActionArgs) {
  const { viewer, em } = await signedIn(args);
  return actionResult(async () => {
    const { id, ...input } = await readBody(args.request, asked);
    return { id: await saveMailbox(em, viewer, id, input) };
  });
}

export const clientAction = answerOrRefusal;
