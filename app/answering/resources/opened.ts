import { z } from "zod";
import { readOpenCase } from "#server/answering/open";
import { actionResult } from "#server/web/results";
import { signedIn } from "#server/web/context";
import type { Route } from "./+types/opened";
import { idInPath } from "#server/edge";

const params = z.object({ number: idInPath });

/** A case as Answering opens it, for answering it from elsewhere. */
export async function loader(args: Route.LoaderArgs) {
  const { viewer, em, now } = await signedIn(args);
  return actionResult(async () => readOpenCase(em, viewer, params.parse(args.params).number, 0, now));
}
