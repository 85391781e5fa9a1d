import { redirect } from "react-router";
import { entityManager } from "#server/db/orm";
import { endSession } from "#server/people/sessions";
import { writeToken } from "#server/web/cookie";
import type { Route } from "./+types/sign-out";

export function loader() {
  return redirect("/waiting");
}

export async function action({ context }: Route.ActionArgs) {
  if (context.sessionToken !== null) await endSession(await entityManager(), context.sessionToken);
  return redirect("/sign-in", { headers: { "Set-Cookie": await writeToken("", context.secure) } });
}
