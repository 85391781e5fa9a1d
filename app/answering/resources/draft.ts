import { z } from "zod";
import { draftSchema, saveDraft } from "#server/answering/draft";
import { actionResult } from "#server/web/results";
import { readBody } from "#server/web/body";
import { signedIn } from "#server/web/context";
import type { Route } from "./+types/draft";
import { idInPath } from "#server/edge";

const params = z.object({ number: idInPath });
/** What else an older page sends is not read. */
const body = z.object({ draft: draftSchema });

export async function action(args: Route.ActionArgs) {
  const { viewer, em, now } = await signedIn(args);
  return actionResult(async () => {
    const { number } = params.parse(args.params);
    const given = await readBody(args.request, body);
    return { version: await saveDraft(em, viewer, number, given.draft, now) };
  });
}
