import { data, redirect } from "react-router";
import { z } from "zod";
import { textIn } from "#server/outside/phones";
import { numberFrom } from "#server/staff/numbers";
import { Unusable } from "#server/errors";
import { readForm } from "#server/web/body";
import { signedIn } from "#server/web/context";
import { loaderResult } from "#server/web/results";
import type { Route } from "./+types/phone-write";
import { t } from "../words/outside";

const form = z.object({
  to: z.string().min(1, t.error("chooseWhomToWriteTo")).max(40),
  text: z.string().trim().min(1, t.error("writeSomething")).max(4000, t.error("thatIsTooLong")),
  /** The page that it was written on. */
  back: z.string().startsWith("/outside/").max(1000),
});

/** Writes a short message to us, from a phone outside. */
export async function action(args: Route.ActionArgs) {
  const { em } = await signedIn(args);
  const fields = Object.fromEntries(await loaderResult(() => readForm(args.request)));
  const parsed = form.safeParse(fields);
  if (!parsed.success) return data({ problem: parsed.error.issues[0]?.message ?? null }, { status: 400 });
  try {
    const number = await numberFrom(em, args.params.number);
    await textIn(number, parsed.data.to, parsed.data.text);
    return redirect(parsed.data.back);
  } catch (error) {
    if (!(error instanceof Unusable)) throw error;
    return data({ problem: error.message }, { status: 400 });
  }
}
