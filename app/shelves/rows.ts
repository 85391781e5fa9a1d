import { z } from "zod";
import { readFilter } from "#server/replies/filter";
import { listReplies } from "#server/replies/list";
import { loaderResult } from "#server/web/results";
import { signedIn } from "#server/web/context";
import type { Route } from "./+types/rows";

const asked = z.object({ page: z.coerce.number().int().min(1).max(1_000_000).catch(1) });

/** A stretch of the list of replies, for who scrolls on. */
export async function loader(args: Route.LoaderArgs) {
  const { viewer, em } = await signedIn(args);
  return loaderResult(async () => {
    const params = new URL(args.request.url).searchParams;
    const { page } = asked.parse(Object.fromEntries(params));
    const { rows, total } = await listReplies(em, viewer, { ...readFilter(params), page });
    return Response.json({ rows, total });
  });
}
