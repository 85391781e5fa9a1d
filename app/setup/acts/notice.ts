import { z } from "zod";
import { noticeSchema } from "#core/forms/notice";
import { idSchema } from "#server/edge";
import { saveNotice } from "#server/notices/notices";
import { readBody } from "#server/web/body";
import { signedIn } from "#server/web/context";
import { actionResult } from "#server/web/results";
import { answerOrRefusal } from "../../ui/refusal";
import type { Route } from "./+types/notice";

const asked = z.strictObject({ id: idSchema.nullable(), notice: noticeSchema });

/** Makes a notice, or changes one. */
export async function action(args: Route.ActionArgs) {
  const { viewer, em } = await signedIn(args);
  return actionResult(async () => {
    const { id, notice } = await readBody(args.request, asked);
    return { id: await saveNotice(em, viewer, id, notice) };
  });
}

export const clientAction = answerOrRefusal;
