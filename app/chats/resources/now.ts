import { openChat } from "#server/chats/desk";
import { idInPath } from "#server/edge";
import { signedIn } from "#server/web/context";
import { actionResult } from "#server/web/results";
import type { Route } from "./+types/now";

/** A chat of one's own as it stands now. */
export async function loader(args: Route.LoaderArgs) {
  const { viewer, em, now } = await signedIn(args);
  return actionResult(async () => openChat(em, viewer, idInPath.parse(args.params.number), now));
}
