import { namesOfRules } from "#server/standing/marks";
import { signedIn } from "#server/web/context";
import { actionResult } from "#server/web/results";
import type { Route } from "./+types/names";

/** The rules by their names. */
export async function loader(args: Route.LoaderArgs) {
  const { em } = await signedIn(args);
  return actionResult(async () => ({ rules: await namesOfRules(em) }));
}
