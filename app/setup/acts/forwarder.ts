import { z } from "zod";
import { forwarderSchema } from "#core/forms/forwarder";
import { idSchema } from "#server/edge";
import { saveForwarder } from "#server/forwarders/forwarders";
import { readBody } from "#server/web/body";
import { signedIn } from "#server/web/context";
import { actionResult } from "#server/web/results";
import { answerOrRefusal } from "../../ui/refusal";
import type { Route } from "./+types/forwarder";

const asked = z.strictObject({ id: idSchema.nullable(), forwarder: forwarderSchema });

/** Makes a forwarder, or changes one. */
export async function action(args: Route.ActionArgs) {
  const { viewer, em, now } = await signedIn(args);
  return actionResult(async () => {
    const { id, forwarder } = await readBody(args.request, asked);
    return { id: await saveForwarder(em, viewer, id, forwarder, now) };
  });
}

export const clientAction = answerOrRefusal;
