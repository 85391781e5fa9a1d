import { sayAtDesk, sayingSchema } from "#server/chats/desk";
import { idInPath } from "#server/edge";
import { readBody } from "#server/web/body";
import { signedIn } from "#server/web/context";
import { actionResult } from "#server/web/results";
import type { Route } from "./+types/said";

/** Says a piece in a chat. */
export async function action(args: Route.ActionArgs) {
  const { viewer, em, now } = await signedIn(args);
  return actionResult(async () => {
    const number = idInPath.parse(args.params.number);
    return sayAtDesk(em, viewer, number, await readBody(args.request, sayingSchema), now);
  });
}
