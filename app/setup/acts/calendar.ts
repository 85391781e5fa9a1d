import { calendarFormSchema } from "#core/forms/answer-times";
import { saveCalendar } from "#server/house/answer-times";
import { idSchema } from "#server/edge";
import { readBody } from "#server/web/body";
import { signedIn } from "#server/web/context";
import { actionResult } from "#server/web/results";
import { answerOrRefusal } from "../../ui/refusal";
import { z } from "zod";
import type { Route } from "./+types/calendar";

const asked = z.strictObject({ id: idSchema.nullable(), calendar: calendarFormSchema });

/** Makes business hours, or changes some. */
export async function action(args: Route.ActionArgs) {
  const { viewer, em } = await signedIn(args);
  return actionResult(async () => {
    const { id, calendar } = await readBody(args.request, asked);
    return { id: await saveCalendar(em, viewer, id, calendar) };
  });
}

export const clientAction = answerOrRefusal;
