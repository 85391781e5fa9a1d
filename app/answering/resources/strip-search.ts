import { z } from "zod";
import { STRIP_LENGTH, caseByNumber } from "#server/answering/open";
import { inquiriesOf } from "#server/ranking/inquiries";
import { stripReplies } from "#server/strip/strip";
import { actionResult } from "#server/web/results";
import { signedIn } from "#server/web/context";
import type { Route } from "./+types/strip-search";
import { idInPath } from "#server/edge";

const params = z.object({ number: idInPath });
const query = z.object({ q: z.string().max(200).default(""), language: z.string().min(2).max(20) });

export async function loader(args: Route.LoaderArgs) {
  const { viewer, em } = await signedIn(args);
  return actionResult(async () => {
    const { number } = params.parse(args.params);
    const { q, language } = query.parse(Object.fromEntries(new URL(args.request.url).searchParams));
    const subject = await caseByNumber(em, number);
    return stripReplies(em, viewer, {
      query: q,
      inquiry: (await inquiriesOf(em, [number])).get(number) ?? null,
      channel: subject.channel,
      language,
      limit: STRIP_LENGTH,
    });
  });
}
