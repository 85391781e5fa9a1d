import { z } from "zod";
import { openCase } from "#server/answering/open";
import { answeringJson } from "#server/web/answers";
import { signedIn } from "#server/web/context";
import type { Route } from "./+types/opened";
import { idInPath } from "#server/edge";

const params = z.object({ number: idInPath });

/** A case as Answering opens it, for answering it from elsewhere. */
export async function loader(args: Route.LoaderArgs) {
  const { viewer, em, now } = await signedIn(args);
  return answeringJson(async () => openCase(em, viewer, params.parse(args.params).number, 0, now));
}
