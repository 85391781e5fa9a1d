import { z } from "zod";
import { idInPath } from "#server/edge";
import { beginRehearsal, endRehearsal } from "#server/standing/rehearsals";
import { readBody } from "#server/web/body";
import { signedIn } from "#server/web/context";
import { actionResult } from "#server/web/results";
import { answerOrRefusal } from "../../ui/refusal";
import type { Route } from "./+types/rehearse";

/** On how many messages; null to give it up. */
const asked = z.strictObject({ most: z.number().int().min(1).max(100_000).nullable() });

/** Begins to rehearse a rule, or gives that up. */
export async function action(args: Route.ActionArgs) {
  const { viewer, em } = await signedIn(args);
  return actionResult(async () => {
    const { most } = await readBody(args.request, asked);
    const rule = idInPath.parse(args.params.id);
    if (most === null) await endRehearsal(em, viewer, rule);
    else await beginRehearsal(em, viewer, rule, most);
    return {};
  });
}

export const clientAction = answerOrRefusal;
