import { z } from "zod";
import { send, sendSchema } from "#server/answering/send";
import { answeringJson } from "#server/web/answers";
import { signedIn } from "#server/web/context";
import type { Route } from "./+types/send";

const params = z.object({ number: z.coerce.number().int() });

export async function action(args: Route.ActionArgs) {
  const { viewer, em, now } = await signedIn(args);
  return answeringJson(async () =>
    send(em, viewer, params.parse(args.params).number, sendSchema.parse(await args.request.json()), now),
  );
}
