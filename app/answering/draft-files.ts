import { z } from "zod";
import { attachToDraft, detachFromDraft } from "#server/answering/files";
import { Unusable } from "#server/errors";
import { answeringJson } from "#server/web/answers";
import { readForm } from "#server/web/body";
import { signedIn } from "#server/web/context";
import type { Route } from "./+types/draft-files";
import { idInPath } from "#server/edge";

const params = z.object({ number: idInPath });
const removal = z.object({ attachment: idInPath });

/** POST adds a file to the draft, DELETE takes one off. */
export async function action(args: Route.ActionArgs) {
  const { viewer, em } = await signedIn(args);
  return answeringJson(async () => {
    const { number } = params.parse(args.params);
    if (args.request.method === "DELETE") {
      await detachFromDraft(
        em,
        viewer,
        removal.parse(Object.fromEntries(new URL(args.request.url).searchParams)).attachment,
      );
      return {};
    }
    const file = (await readForm(args.request)).get("file");
    if (!(file instanceof File)) throw new Unusable("Choose a file");
    return attachToDraft(em, viewer, number, {
      name: file.name,
      type: file.type,
      content: Buffer.from(await file.arrayBuffer()),
    });
  });
}
