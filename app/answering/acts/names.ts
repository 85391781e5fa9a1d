import { z } from "zod";
import { otherNames } from "#server/answering/names";
import { caseByNumber } from "#server/answering/open";
import { idInPath } from "#server/edge";
import { actionResult } from "#server/web/results";
import { readBody } from "#server/web/body";
import { signedIn } from "#server/web/context";
import type { Route } from "./+types/names";

const body = z.strictObject({ text: z.string().max(400_000) });

/** Looks in the words of a letter for names of other customers. */
export async function action(args: Route.ActionArgs) {
  const { em } = await signedIn(args);
  return actionResult(async () => {
    const { text } = await readBody(args.request, body);
    const { customer } = await caseByNumber(em, idInPath.parse(args.params.number));
    return { names: await otherNames(em, text, customer.id) };
  });
}
