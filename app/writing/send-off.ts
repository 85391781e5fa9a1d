import { z } from "zod";
import {
  dropWorking,
  proposeWorking,
  publishProposal,
  publishWorking,
  sendBack,
} from "#server/replies/publishing";
import { mergeOnto, workFrom } from "#server/replies/writing";
import { answeringJson } from "#server/web/answers";
import { readBody } from "#server/web/body";
import { signedIn } from "#server/web/context";
import type { Route } from "./+types/send-off";
import { idSchema } from "#server/edge";

const remark = z
  .string()
  .trim()
  .max(2000, "At most 2,000 characters")
  .nullable()
  .transform((text) => (text === "" ? null : text));
const version = idSchema;
const sendOff = { revision: idSchema, remark };

const body = z.discriminatedUnion("what", [
  z.strictObject({ what: z.literal("publish"), ...sendOff }),
  z.strictObject({ what: z.literal("propose"), ...sendOff }),
  z.strictObject({ what: z.literal("drop") }),
  z.strictObject({ what: z.literal("merge"), published: version }),
  z.strictObject({ what: z.literal("work from"), version, replace: z.boolean() }),
  z.strictObject({
    what: z.literal("publish proposal"),
    version,
    over: version.nullable(),
    decision: remark,
  }),
  z.strictObject({ what: z.literal("send back"), version, decision: z.string().max(2000) }),
]);

/** What is done with a working copy or a proposal, beyond saving it. */
export async function action(args: Route.ActionArgs) {
  const { viewer, em, now } = await signedIn(args);
  const { key } = args.params;
  return answeringJson(async () => {
    const asked = await readBody(args.request, body);
    switch (asked.what) {
      case "publish":
        return { number: await publishWorking(em, viewer, key, asked, now) };
      case "propose":
        return { number: await proposeWorking(em, viewer, key, asked, now) };
      case "drop":
        await dropWorking(em, viewer, key, now);
        return {};
      case "merge":
        await mergeOnto(em, viewer, key, asked.published);
        return {};
      case "work from":
        await workFrom(em, viewer, key, asked.version, asked.replace, now);
        return {};
      case "publish proposal":
        return {
          number: await publishProposal(em, viewer, key, asked.version, asked.over, asked.decision, now),
        };
      case "send back":
        await sendBack(em, viewer, key, asked.version, asked.decision, now);
        return {};
    }
  });
}
