import { z } from "zod";
import { exampleOf } from "#server/forwarders/forwarders";
import { readBody } from "#server/web/body";
import { signedIn } from "#server/web/context";
import { actionResult } from "#server/web/results";
import { answerOrRefusal } from "../../ui/refusal";
import type { Route } from "./+types/forwarder-example";

const asked = z.strictObject({ sender: z.string().trim().min(3).max(254) });

/** The latest mail of a sender, for marking it up. */
export async function action(args: Route.ActionArgs) {
  const { viewer, em } = await signedIn(args);
  return actionResult(async () => exampleOf(em, viewer, (await readBody(args.request, asked)).sender));
}

export const clientAction = answerOrRefusal;
