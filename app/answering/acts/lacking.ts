import { idInPath } from "#server/edge";
import { lackingSchema, noteLacking } from "#server/fields/gaps";
import { readBody } from "#server/web/body";
import { signedIn } from "#server/web/context";
import { actionResult } from "#server/web/results";
import { answerOrRefusal } from "../../ui/refusal";
import type { Route } from "./+types/lacking";

/** Keeps which values a letter could not go without. */
export async function action(args: Route.ActionArgs) {
  const { viewer, em, now } = await signedIn(args);
  return actionResult(async () => {
    const { names } = await readBody(args.request, lackingSchema);
    await noteLacking(em, viewer, idInPath.parse(args.params.number), names, now);
    return {};
  });
}

export const clientAction = answerOrRefusal;

/** Nothing that is shown changes by it. */
export const shouldRevalidate = () => false;
