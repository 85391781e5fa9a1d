import { z } from "zod";
import { attachToDraft } from "#server/answering/files";
import { Unusable } from "#server/errors";
import { actionResult } from "#server/web/results";
import { readForm } from "#server/web/body";
import { signedIn } from "#server/web/context";
import { answerOrRefusal } from "../../ui/refusal";
import type { Route } from "./+types/add-file";
import { idInPath } from "#server/edge";

const params = z.object({ number: idInPath });

/** Adds a file to the draft. */
export async function action(args: Route.ActionArgs) {
  const { viewer, em } = await signedIn(args);
  return actionResult(async () => {
    const { number } = params.parse(args.params);
    const file = (await readForm(args.request)).get("file");
    if (!(file instanceof File)) throw new Unusable("Choose a file");
    return attachToDraft(em, viewer, number, {
      name: file.name,
      type: file.type,
      content: Buffer.from(await file.arrayBuffer()),
    });
  });
}

export const clientAction = answerOrRefusal;
