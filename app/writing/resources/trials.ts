import { z } from "zod";
import { trialCases } from "#server/writing/trial-cases";
import { actionResult } from "#server/web/results";
import { signedIn } from "#server/web/context";
import type { Route } from "./+types/trials";
import { t } from "../../words/writing";

const query = z.object({
  pinned: z
    .string()
    .max(400)
    .default("")
    .transform((text) => text.split(",").filter(Boolean))
    .pipe(
      z
        .array(
          z
            .string()
            .regex(/^\d{1,9}$/, t.error("numbersOfCases"))
            .transform(Number),
        )
        .max(40),
    ),
});

/** Cases to try replies on. */
export async function loader(args: Route.LoaderArgs) {
  const { viewer, em, now } = await signedIn(args);
  return actionResult(async () => {
    const { pinned } = query.parse(Object.fromEntries(new URL(args.request.url).searchParams));
    return { cases: await trialCases(em, viewer, pinned, now) };
  });
}
