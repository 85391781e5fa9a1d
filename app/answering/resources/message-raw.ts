import { z } from "zod";
import { messageRaw } from "#server/cases/conversation";
import { loaderResult } from "#server/web/results";
import { download } from "#server/web/download";
import { signedIn } from "#server/web/context";
import type { Route } from "./+types/message-raw";
import { idInPath } from "#server/edge";

const params = z.object({ id: idInPath });

/** The message as it came over the wire. */
export async function loader(args: Route.LoaderArgs) {
  const { em } = await signedIn(args);
  const { content, name } = await loaderResult(() => messageRaw(em, params.parse(args.params).id));
  return download(content, name, "message/rfc822");
}
