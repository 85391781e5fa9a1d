import { actionResult } from "#server/web/results";
import { removeShelf } from "#server/replies/shelves";
import { signedIn } from "#server/web/context";
import { answerOrRefusal } from "../../ui/refusal";
import type { Route } from "./+types/remove-shelf";

/** Takes an empty shared shelf away. */
export async function action(args: Route.ActionArgs) {
  const { viewer, em } = await signedIn(args);
  return actionResult(async () => {
    await removeShelf(em, viewer, args.params.key);
    return {};
  });
}

export const clientAction = answerOrRefusal;
