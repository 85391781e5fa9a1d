import { Unusable } from "#server/errors";
import { uploadFile } from "#server/replies/uploads";
import { actionResult } from "#server/web/results";
import { readForm } from "#server/web/body";
import { signedIn } from "#server/web/context";
import { answerOrRefusal } from "../../ui/refusal";
import type { Route } from "./+types/files";
import { t } from "../../words/writing";

/** Stores a file for a reply, a signature or stationery; `picture` says that it is to stand in the words. */
export async function action(args: Route.ActionArgs) {
  const { viewer, em } = await signedIn(args);
  return actionResult(async () => {
    const form = await readForm(args.request);
    const file = form.get("file");
    if (!(file instanceof File)) throw new Unusable(t("chooseAFile"));
    const content = Buffer.from(await file.arrayBuffer());
    return uploadFile(
      em,
      viewer,
      { name: file.name, type: file.type, content },
      form.get("picture") === "yes",
    );
  });
}

export const clientAction = answerOrRefusal;
