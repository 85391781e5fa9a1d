import { useEffect } from "react";
import { data, Form, redirect, useNavigation } from "react-router";
import { z } from "zod";
import { entityManager } from "#server/db/orm";
import { signIn } from "#server/people/sign-in";
import { endSession } from "#server/people/sessions";
import { loaderResult } from "#server/web/results";
import { readForm } from "#server/web/body";
import { readDevice, writeDevice, writeToken } from "#server/web/cookie";
import { Button } from "../ui/button";
import { Field } from "../ui/field";
import { forgetScreens } from "../ui/stale";
import type { Route } from "./+types/sign-in";
import { Door, DoorProblem } from "./door";
import { t } from "../words/account";

/** What is wrong with each field. */
interface FieldProblems {
  email?: string[] | undefined;
  password?: string[] | undefined;
}

const form = z.object({
  email: z.email(t.error("writeYourEmailAddressAsIn")),
  password: z.string().min(1, t.error("writeYourPassword")).max(1000, t.error("thatIsTooLongForA")),
});

/** Only a place of ours to go on to: a path, as a browser reads it, on no other host. */
function destination(request: Request): string {
  const here = new URL("https://here.invalid");
  const to = new URL(request.url).searchParams.get("to") ?? "";
  if (!to.startsWith("/") || !URL.canParse(to, here)) return "/waiting";
  const url = new URL(to, here);
  return url.origin === here.origin ? url.pathname + url.search : "/waiting";
}

export function loader({ request, context }: Route.LoaderArgs) {
  if (context.viewer) return redirect(destination(request));
  return null;
}

export async function action({ request, context }: Route.ActionArgs) {
  const fields = Object.fromEntries(await loaderResult(() => readForm(request)));
  const email = typeof fields.email === "string" ? fields.email.trim() : "";
  const parsed = form.safeParse({ ...fields, email });
  if (!parsed.success)
    return data({ email, fields: z.flattenError(parsed.error).fieldErrors, problem: null }, { status: 400 });
  const result = await signIn(
    await entityManager(),
    {
      ...parsed.data,
      address: context.address,
      browser: request.headers.get("user-agent"),
      device: await readDevice(request.headers.get("cookie")),
    },
    new Date(),
  );
  if (result.ok) {
    // Who signs in anew in a browser is no longer who was signed in there.
    if (context.sessionToken !== null) await endSession(await entityManager(), context.sessionToken);
    return redirect(destination(request), {
      headers: [
        ["Set-Cookie", await writeToken(result.token, context.secure)],
        ["Set-Cookie", await writeDevice(result.device, context.secure)],
      ],
    });
  }
  const noProblems: FieldProblems = { email: undefined, password: undefined };
  const problem =
    result.reason === "unknown"
      ? t("thatEmailAddressAndPasswordDo")
      : t("tooManyAttemptsWaitSecondsMin", { seconds: Math.ceil(result.seconds / 60) });
  return data({ email, fields: noProblems, problem }, { status: result.reason === "unknown" ? 401 : 429 });
}

export default function SignIn({ actionData }: Route.ComponentProps) {
  const busy = useNavigation().state !== "idle";
  useEffect(forgetScreens, []);
  return (
    <Door title={t("signIn")} words={t("rightAnswersKeptWhereEveryoneFinds")}>
      <Form method="post" className="mt-7 flex flex-col gap-5" noValidate>
        <DoorProblem words={actionData?.problem} />
        <Field label={t("email")} problem={actionData?.fields.email?.[0]}>
          {(attributes) => (
            <input
              {...attributes}
              name="email"
              type="email"
              autoComplete="username"
              autoFocus
              defaultValue={actionData?.email}
            />
          )}
        </Field>
        <Field label={t("password")} problem={actionData?.fields.password?.[0]}>
          {(attributes) => (
            <input {...attributes} name="password" type="password" autoComplete="current-password" />
          )}
        </Field>
        <Button type="submit" disabled={busy} keys="Enter">
          {t("signIn")}
        </Button>
      </Form>
    </Door>
  );
}
