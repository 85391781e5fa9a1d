import { z } from "zod";
import { ruleModes } from "#core/standing/rule";
import { idInPath } from "#server/edge";
import { switchRule } from "#server/standing/rules";
import { readBody } from "#server/web/body";
import { signedIn } from "#server/web/context";
import { actionResult } from "#server/web/results";
import { answerOrRefusal } from "../../ui/refusal";
import type { Route } from "./+types/switch";

const asked = z.strictObject({ to: z.enum(["off", ...ruleModes]) });

/** Switches a rule on or off. */
export async function action(args: Route.ActionArgs) {
  const { viewer, em, now } = await signedIn(args);
  return actionResult(async () => {
    const { to } = await readBody(args.request, asked);
    await switchRule(em, viewer, idInPath.parse(args.params.id), to, now);
    return {};
  });
}

export const clientAction = answerOrRefusal;
