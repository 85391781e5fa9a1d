import { z } from "zod";
import { idInPath } from "#server/edge";
import { filledFields, ownerSchema } from "#server/fields/values";
import { readQuery } from "#server/web/body";
import { signedIn } from "#server/web/context";
import { actionResult } from "#server/web/results";
import type { Route } from "./+types/values";

const query = z.object({ topic: z.string().min(1).max(100).nullable().catch(null) });

/** The fields of a case, a customer, an organisation or a colleague, with their values. */
export async function loader(args: Route.LoaderArgs) {
  const { em } = await signedIn(args);
  return actionResult(async () => {
    const { topic } = readQuery(args.request, query);
    const of = ownerSchema.parse(args.params.of);
    return { fields: await filledFields(em, of, idInPath.parse(args.params.id), topic) };
  });
}
