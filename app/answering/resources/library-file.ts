import { z } from "zod";
import { replyFile } from "#server/replies/files";
import { loaderResult } from "#server/web/results";
import { download } from "#server/web/download";
import { signedIn } from "#server/web/context";
import type { Route } from "./+types/library-file";
import { idInPath } from "#server/edge";

const params = z.object({ id: idInPath });

/** A file that travels with a reply: a picture in a preview, or a form to look at. */
export async function loader(args: Route.LoaderArgs) {
  const { viewer, em } = await signedIn(args);
  const file = await loaderResult(() => replyFile(em, viewer, params.parse(args.params).id));
  return download(file.content, file.name, file.contentType);
}
