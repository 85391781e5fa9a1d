import { z } from "zod";
import { atDesk, endAtDesk, handOver, readAtDesk, takeAtMost, typingAtDesk } from "#server/chats/desk";
import { MOST_ID } from "#core/forms/fields";
import { idSchema } from "#server/edge";
import { readBody } from "#server/web/body";
import { signedIn } from "#server/web/context";
import { actionResult } from "#server/web/results";
import type { Route } from "./+types/sign";

const asked = z.discriminatedUnion("what", [
  /** Their Chats are open. */
  z.strictObject({ what: z.literal("here") }),
  z.strictObject({ what: z.literal("take"), limit: z.int() }),
  z.strictObject({ what: z.literal("typing"), number: idSchema }),
  z.strictObject({ what: z.literal("read"), number: idSchema, to: z.int().min(0).max(MOST_ID) }),
  z.strictObject({ what: z.literal("end"), number: idSchema }),
  z.strictObject({ what: z.literal("hand over"), number: idSchema, to: idSchema }),
]);

/** Signs of an agent at their chats: that they are there, how many they take, what they do in one. */
export async function action(args: Route.ActionArgs) {
  const { viewer, em, now } = await signedIn(args);
  return actionResult(async () => {
    const sign = await readBody(args.request, asked);
    switch (sign.what) {
      case "here":
        await atDesk(em, viewer, now);
        break;
      case "take":
        await takeAtMost(em, viewer, sign.limit, now);
        break;
      case "typing":
        await typingAtDesk(em, viewer, sign.number);
        break;
      case "read":
        await readAtDesk(em, viewer, sign.number, sign.to);
        break;
      case "end":
        await endAtDesk(em, viewer, sign.number, now);
        break;
      case "hand over":
        await handOver(em, viewer, sign.number, sign.to, now);
        break;
    }
    return {};
  });
}
