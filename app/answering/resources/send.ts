import { z } from "zod";
import { send, sendSchema } from "#server/answering/send";
import { actionResult } from "#server/web/results";
import { readBody } from "#server/web/body";
import { signedIn } from "#server/web/context";
import type { Route } from "./+types/send";
import { idInPath } from "#server/edge";

const params = z.object({ number: idInPath });

export async function action(args: Route.ActionArgs) {
  const { viewer, em, now } = await signedIn(args);
  return actionResult(async () =>
    send(em, viewer, params.parse(args.params).number, await readBody(args.request, sendSchema), now),
  );
}
