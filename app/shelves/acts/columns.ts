import { actionResult } from "#server/web/results";
import { chooseColumns, columnsSchema } from "#server/replies/columns";
import { readBody } from "#server/web/body";
import { signedIn } from "#server/web/context";
import { z } from "zod";
import { answerOrRefusal } from "../../ui/refusal";
import type { Route } from "./+types/columns";

/** Remembers which columns a person wants, in which order. */
export async function action(args: Route.ActionArgs) {
  const { viewer, em } = await signedIn(args);
  return actionResult(async () => {
    const { columns } = await readBody(args.request, z.strictObject({ columns: columnsSchema }));
    await chooseColumns(em, viewer, columns);
    return {};
  });
}

export const clientAction = answerOrRefusal;
