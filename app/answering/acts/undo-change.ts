import { undoChange } from "#server/cases/changes";
import { idInPath } from "#server/edge";
import { signedIn } from "#server/web/context";
import { actionResult } from "#server/web/results";
import { answerOrRefusal } from "../../ui/refusal";
import type { Route } from "./+types/undo-change";

/** Undoes a change of cases. */
export async function action(args: Route.ActionArgs) {
  const { viewer, em, now } = await signedIn(args);
  return actionResult(() => undoChange(em, viewer, idInPath.parse(args.params.id), now));
}

export const clientAction = answerOrRefusal;
