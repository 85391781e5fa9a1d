import { z } from "zod";
import { ruleModes } from "#core/standing/rule";
import { idInPath } from "#server/edge";
import { switchRule } from "#server/standing/rules";
import { readBody } from "#server/web/body";
import { signedIn } from "#server/web/context";
import { actionResult } from "#server/web/results";
import { answerOrRefusal } from "../../ui/refusal";
import type { Route } from "./+types/switch";

const asked = z.strictObject({
  to: z.enum(["off", ...ruleModes]),
  /** When it switches itself off; null for not at all. */
  until: z.iso.datetime().nullable(),
});

/** Switches a rule on or off. */
export async function action(args: Route.ActionArgs) {
  const { viewer, em, now } = await signedIn(args);
  return actionResult(async () => {
    const { to, until } = await readBody(args.request, asked);
    await switchRule(
      em,
      viewer,
      idInPath.parse(args.params.id),
      to,
      now,
      until === null ? null : new Date(until),
    );
    return {};
  });
}

export const clientAction = answerOrRefusal;
