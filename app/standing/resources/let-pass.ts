import { z } from "zod";
import { idInPath } from "#server/edge";
import { letPass } from "#server/standing/let-pass";
import { signedIn } from "#server/web/context";
import { actionResult } from "#server/web/results";
import type { Route } from "./+types/let-pass";

const params = z.object({ id: idInPath });

/** What came while a rule was on, and with which it did nothing; and why. */
export async function loader(args: Route.LoaderArgs) {
  const { viewer, em } = await signedIn(args);
  return actionResult(async () => ({ passed: await letPass(em, viewer, params.parse(args.params).id) }));
}
