import { actionResult } from "#server/web/results";
import { readBody } from "#server/web/body";
import { shelfSchema } from "#core/forms/library";
import { saveShelf } from "#server/replies/shelves";
import { signedIn } from "#server/web/context";
import { z } from "zod";
import { answerOrRefusal } from "../../ui/refusal";
import type { Route } from "./+types/save-shelf";

const body = z.strictObject({ key: z.string().nullable(), shelf: shelfSchema });

/** Makes a shared shelf, or changes one. */
export async function action(args: Route.ActionArgs) {
  const { viewer, em } = await signedIn(args);
  return actionResult(async () => {
    const { key, shelf } = await readBody(args.request, body);
    return { key: await saveShelf(em, viewer, key, shelf) };
  });
}

export const clientAction = answerOrRefusal;
