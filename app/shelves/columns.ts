import { z } from "zod";
import { chooseColumns, columnsSchema } from "#server/replies/columns";
import { answeringJson } from "#server/web/answers";
import { readBody } from "#server/web/body";
import { signedIn } from "#server/web/context";
import type { Route } from "./+types/columns";

/** Remembers which columns a person wants. */
export async function action(args: Route.ActionArgs) {
  const { viewer, em } = await signedIn(args);
  return answeringJson(async () => {
    const { columns } = await readBody(args.request, z.strictObject({ columns: columnsSchema }));
    await chooseColumns(em, viewer, columns);
    return {};
  });
}
