import { z } from "zod";
import { keepAnswer, keepSchema } from "#server/answering/keep";
import { begunReplySchema, newReplySchema } from "#core/forms/library";
import { createReply } from "#server/replies/writing";
import { actionResult } from "#server/web/results";
import { readBody } from "#server/web/body";
import { signedIn } from "#server/web/context";
import { answerOrRefusal } from "../../ui/refusal";
import type { Route } from "./+types/create";

const body = z.union([
  z.strictObject({ reply: newReplySchema, from: z.string().max(200).nullable() }),
  z.strictObject({ reply: begunReplySchema }),
  keepSchema,
]);

/** Begins a reply. */
export async function action(args: Route.ActionArgs) {
  const { viewer, em, now } = await signedIn(args);
  return actionResult(async () => {
    const asked = await readBody(args.request, body);
    if ("source" in asked) return { key: await keepAnswer(em, viewer, asked, now) };
    if (!("from" in asked)) {
      const { words, ...reply } = asked.reply;
      return { key: await createReply(em, viewer, reply, words === "" ? null : { words }, now) };
    }
    const from = asked.from === null ? null : { reply: asked.from };
    return { key: await createReply(em, viewer, asked.reply, from, now) };
  });
}

export const clientAction = answerOrRefusal;
