import { tagsOf } from "#server/cases/tags";
import { signedIn } from "#server/web/context";
import { actionResult } from "#server/web/results";
import type { Route } from "./+types/tags";

/** Tags that cases have. */
export async function loader(args: Route.LoaderArgs) {
  const { em } = await signedIn(args);
  return actionResult(async () => ({ tags: await tagsOf(em) }));
}
