import { z } from "zod";
import { orderPins, setPin } from "#server/replies/pins";
import { answeringJson } from "#server/web/answers";
import { readBody } from "#server/web/body";
import { signedIn } from "#server/web/context";
import type { Route } from "./+types/pins";

const body = z.discriminatedUnion("what", [
  z.strictObject({ what: z.literal("pin"), key: z.string(), pinned: z.boolean() }),
  z.strictObject({ what: z.literal("order"), keys: z.array(z.string()).max(1000) }),
]);

/** Keeps replies within reach, and in order. */
export async function action(args: Route.ActionArgs) {
  const { viewer, em } = await signedIn(args);
  return answeringJson(async () => {
    const asked = await readBody(args.request, body);
    if (asked.what === "pin") await setPin(em, viewer, asked.key, asked.pinned);
    else await orderPins(em, viewer, asked.keys);
    return {};
  });
}
