import { redirect } from "react-router";
import { z } from "zod";
import { Message } from "#server/db/entities/messages";
import { tryAgain } from "#server/sending/schedule";
import { loaderResult } from "#server/web/results";
import { signedIn } from "#server/web/context";
import type { Route } from "./+types/try-again";
import { idInPath } from "#server/edge";

const params = z.object({ id: idInPath });

export async function action(args: Route.ActionArgs) {
  const { viewer, em, now } = await signedIn(args);
  const number = await loaderResult(async () => {
    const { id } = params.parse(args.params);
    await tryAgain(em, viewer, id, now);
    return (await em.findOneOrFail(Message, { id }, { populate: ["case"] })).case.number;
  });
  return redirect(`/cases/${number}`);
}
