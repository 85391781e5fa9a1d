import { z } from "zod";
import { idInPath } from "#server/edge";
import { removeForwarder, switchForwarder, tryForwarder } from "#server/forwarders/forwarders";
import { readBody } from "#server/web/body";
import { signedIn } from "#server/web/context";
import { actionResult } from "#server/web/results";
import { answerOrRefusal } from "../../ui/refusal";
import type { Route } from "./+types/do-forwarder";

const asked = z.discriminatedUnion("what", [
  z.strictObject({ what: z.literal("try") }),
  z.strictObject({ what: z.literal("switch"), on: z.boolean(), allTheSame: z.boolean() }),
  z.strictObject({ what: z.literal("remove") }),
]);

/** Tries a forwarder on past mail, switches it on or off, or takes it away. */
export async function action(args: Route.ActionArgs) {
  const { viewer, em, now } = await signedIn(args);
  return actionResult(async () => {
    const id = idInPath.parse(args.params.id);
    const wanted = await readBody(args.request, asked);
    switch (wanted.what) {
      case "try":
        return { tried: await tryForwarder(em, viewer, id, now) };
      case "switch":
        await switchForwarder(em, viewer, id, wanted, now);
        return {};
      case "remove":
        await removeForwarder(em, viewer, id);
        return {};
    }
  });
}

export const clientAction = answerOrRefusal;
