import { z } from "zod";
import { actionResult } from "#server/web/results";
import { removeField } from "#server/house/fields";
import { signedIn } from "#server/web/context";
import { answerOrRefusal } from "../../ui/refusal";
import type { Route } from "./+types/remove-field";
import { t } from "#server/words";

const of = z.enum(["case", "booking"], t.error("thereIsNoSuchField"));

/** Removes a field that nothing reads. */
export async function action(args: Route.ActionArgs) {
  const { viewer, em } = await signedIn(args);
  return actionResult(async () => {
    await removeField(em, viewer, of.parse(args.params.of), args.params.key);
    return {};
  });
}

export const clientAction = answerOrRefusal;
