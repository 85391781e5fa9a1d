import { z } from "zod";
import { keepAddress } from "#server/answering/recipients";
import { idInPath } from "#server/edge";
import { actionResult } from "#server/web/results";
import { readBody } from "#server/web/body";
import { signedIn } from "#server/web/context";
import { answerOrRefusal } from "../../ui/refusal";
import type { Route } from "./+types/addresses";

const body = z.strictObject({ address: z.string().min(1).max(320) });

/** Keeps an address that wrote on the case as the customer's own. */
export async function action(args: Route.ActionArgs) {
  const { viewer, em, now } = await signedIn(args);
  return actionResult(async () => {
    const { address } = await readBody(args.request, body);
    await keepAddress(em, viewer, idInPath.parse(args.params.number), address, now);
    return { address };
  });
}

export const clientAction = answerOrRefusal;
