import { z } from "zod";
import { openCase } from "#server/answering/open";
import { answeringJson } from "#server/web/answers";
import { signedIn } from "#server/web/context";
import type { Route } from "./+types/opened";

const params = z.object({ number: z.coerce.number().int() });

/** A case as Answering opens it, for answering it from elsewhere. */
export async function loader(args: Route.LoaderArgs) {
  const { viewer, em, now } = await signedIn(args);
  return answeringJson(async () => openCase(em, viewer, params.parse(args.params).number, false, now));
}
