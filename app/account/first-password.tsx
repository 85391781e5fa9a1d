import { data, Form, redirect, useNavigation } from "react-router";
import { z } from "zod";
import { changedPasswordSchema } from "#core/forms/people";
import { Unusable } from "#server/errors";
import { changePassword } from "#server/people/account";
import { readForm } from "#server/web/body";
import { signedIn } from "#server/web/context";
import { loaderResult } from "#server/web/results";
import { Button } from "../ui/button";
import { Field } from "../ui/field";
import type { Route } from "./+types/first-password";
import { Door } from "./door";
import { t } from "../words/account";

export async function loader(args: Route.LoaderArgs) {
  const { viewer } = await signedIn(args, true);
  return viewer.mustChangePassword ? null : redirect("/account");
}

interface Problems {
  old?: string[] | undefined;
  password?: string[] | undefined;
}

export async function action(args: Route.ActionArgs) {
  const { viewer, em } = await signedIn(args, true);
  const form = Object.fromEntries(await loaderResult(() => readForm(args.request)));
  const read = z.safeParse(changedPasswordSchema, form);
  const refused = (problems: Problems) => data(problems, { status: 400 });
  if (!read.success) return refused(z.flattenError(read.error).fieldErrors);
  try {
    await changePassword(em, viewer, read.data, args.context.sessionId);
    return redirect(viewer.role === "lead" ? "/setup" : "/");
  } catch (error) {
    if (!(error instanceof Unusable)) throw error;
    return refused(error.at === "old" ? { old: [error.message] } : { password: [error.message] });
  }
}

/** Who signed in with a password that others have read chooses one of their own first. */
export default function FirstPassword({ actionData }: Route.ComponentProps) {
  const busy = useNavigation().state !== "idle";
  return (
    <Door title={t("chooseAPassword")} words={t("thePasswordYouSignedInWith")}>
      <Form method="post" className="mt-7 flex flex-col gap-5" noValidate>
        <Field label={t("passwordYouSignedInWith")} problem={actionData?.old?.[0]}>
          {(attributes) => (
            <input {...attributes} name="old" type="password" autoComplete="current-password" autoFocus />
          )}
        </Field>
        <Field
          label={t("yourOwnPassword")}
          problem={actionData?.password?.[0]}
          hint={t("atLeast10CharactersSeveralWords")}
        >
          {(attributes) => (
            <input {...attributes} name="password" type="password" autoComplete="new-password" />
          )}
        </Field>
        <Button type="submit" disabled={busy} keys="Enter">
          {t("saveItAndGoOn")}
        </Button>
      </Form>
    </Door>
  );
}
