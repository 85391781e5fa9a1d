import { z } from "zod";
import { STRIP_LENGTH, findCase } from "#server/answering/open";
import { Message } from "#server/db/entities/cases";
import { stripReplies } from "#server/replies/strip";
import { answeringJson } from "#server/web/answers";
import { signedIn } from "#server/web/context";
import type { Route } from "./+types/strip-search";

const params = z.object({ number: z.coerce.number().int() });
const query = z.object({ q: z.string().max(200).default(""), language: z.string().min(2).max(20) });

export async function loader(args: Route.LoaderArgs) {
  const { viewer, em } = await signedIn(args);
  return answeringJson(async () => {
    const { number } = params.parse(args.params);
    const { q, language } = query.parse(Object.fromEntries(new URL(args.request.url).searchParams));
    const subject = await findCase(em, number);
    const latest = await em.findOne(
      Message,
      { case: subject, direction: "in" },
      { orderBy: { at: "desc", id: "desc" } },
    );
    return stripReplies(em, viewer, {
      query: q,
      message: { subject: latest?.subject ?? "", body: latest?.text ?? "" },
      channel: subject.channel,
      language,
      limit: STRIP_LENGTH,
    });
  });
}
