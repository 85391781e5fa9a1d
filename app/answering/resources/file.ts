import { z } from "zod";
import { attachedFile } from "#server/cases/conversation";
import { loaderResult } from "#server/web/results";
import { download } from "#server/web/download";
import { signedIn } from "#server/web/context";
import type { Route } from "./+types/file";
import { idInPath } from "#server/edge";

const params = z.object({ id: idInPath });

/** A file of a message, or of a draft of one's own. */
export async function loader(args: Route.LoaderArgs) {
  const { viewer, em } = await signedIn(args);
  const file = await loaderResult(() => attachedFile(em, viewer.id, params.parse(args.params).id));
  return download(file.content, file.name, file.contentType);
}
