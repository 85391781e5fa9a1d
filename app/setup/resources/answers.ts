import { z } from "zod";
import { findAnswers } from "#server/notices/notices";
import { readQuery } from "#server/web/body";
import { signedIn } from "#server/web/context";
import { actionResult } from "#server/web/results";
import type { Route } from "./+types/answers";

const query = z.object({ q: z.string().max(200) });

/** Answers on the shelf, by what is typed. */
export async function loader(args: Route.LoaderArgs) {
  const { viewer, em } = await signedIn(args);
  return actionResult(async () => ({
    answers: await findAnswers(em, viewer, readQuery(args.request, query).q),
  }));
}
