import { z } from "zod";
import { draftSchema, saveDraft } from "#server/answering/draft";
import { otherNames } from "#server/answering/names";
import { findCase } from "#server/answering/open";
import { actionResult } from "#server/web/results";
import { readBody } from "#server/web/body";
import { signedIn } from "#server/web/context";
import type { Route } from "./+types/draft";
import { idInPath } from "#server/edge";

const params = z.object({ number: idInPath });
/** The draft, and the letter's text as the screen composed it: to look for other customers' names in. */
const body = z.strictObject({ draft: draftSchema, text: z.string().max(400_000) });

export async function action(args: Route.ActionArgs) {
  const { viewer, em, now } = await signedIn(args);
  return actionResult(async () => {
    const { number } = params.parse(args.params);
    const given = await readBody(args.request, body);
    const version = await saveDraft(em, viewer, number, given.draft, now);
    const subject = await findCase(em, number);
    return { version, otherNames: await otherNames(em, given.text, subject.customer.id) };
  });
}
