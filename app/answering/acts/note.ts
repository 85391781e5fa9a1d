import { idInPath } from "#server/edge";
import { noteSchema, writeNote } from "#server/notes/notes";
import { readBody } from "#server/web/body";
import { signedIn } from "#server/web/context";
import { actionResult } from "#server/web/results";
import { answerOrRefusal } from "../../ui/refusal";
import type { Route } from "./+types/note";

/** Writes a note on a case. */
export async function action(args: Route.ActionArgs) {
  const { viewer, em, now } = await signedIn(args);
  return actionResult(async () => {
    const note = await readBody(args.request, noteSchema);
    return writeNote(em, viewer, idInPath.parse(args.params.number), note, now);
  });
}

export const clientAction = answerOrRefusal;
