import { z } from "zod";
import { saveOrigins } from "#server/contact/forms";
import { readBody } from "#server/web/body";
import { signedIn } from "#server/web/context";
import { actionResult } from "#server/web/results";
import { answerOrRefusal } from "../../ui/refusal";
import type { Route } from "./+types/origins";

const asked = z.strictObject({ origins: z.array(z.string().trim().max(300)).max(50) });

/** Says which sites may hold our form and chat. */
export async function action(args: Route.ActionArgs) {
  const { viewer, em } = await signedIn(args);
  return actionResult(async () => {
    await saveOrigins(em, viewer, (await readBody(args.request, asked)).origins);
    return {};
  });
}

export const clientAction = answerOrRefusal;
