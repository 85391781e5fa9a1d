import { redirect } from "react-router";
import { z } from "zod";
import { idInPath } from "#server/edge";
import { endSessions } from "#server/people/sessions";
import { readForm } from "#server/web/body";
import { signedIn } from "#server/web/context";
import { loaderResult } from "#server/web/results";
import type { Route } from "./+types/sessions";

const form = z.union([z.object({ id: idInPath }), z.object({ others: z.literal("yes") })]);

/** Ends one of one’s own sessions, or all but this one. */
export async function action(args: Route.ActionArgs) {
  const { viewer, em } = await signedIn(args);
  return loaderResult(async () => {
    const asked = form.parse(Object.fromEntries(await readForm(args.request)));
    await endSessions(em, viewer, "id" in asked ? asked : { allBut: args.context.sessionId ?? 0 });
    return redirect("/account");
  });
}
