import { data, Form, redirect, useNavigation } from "react-router";
import { z } from "zod";
import { firstPasswordSchema } from "#core/forms/people";
import { entityManager } from "#server/db/orm";
import { NotFound, Unusable } from "#server/errors";
import { choosePassword, openLink } from "#server/people/links";
import { readForm } from "#server/web/body";
import { writeToken } from "#server/web/cookie";
import { loaderResult } from "#server/web/results";
import { Button } from "../ui/button";
import { Field } from "../ui/field";
import type { Route } from "./+types/welcome";
import { Door, DoorProblem } from "./door";
import { t } from "../words/account";
import { Sentence } from "../words/sentence";

export async function loader({ params }: Route.LoaderArgs) {
  return loaderResult(async () => openLink(await entityManager(), params.token, new Date()));
}

export async function action({ request, params, context }: Route.ActionArgs) {
  const form = Object.fromEntries(await loaderResult(() => readForm(request)));
  const read = z.safeParse(firstPasswordSchema, form);
  if (!read.success) return data({ problem: null, password: read.error.issues[0]?.message }, { status: 400 });
  try {
    const where = { browser: request.headers.get("user-agent"), address: context.address };
    const em = await entityManager();
    const token = await choosePassword(em, params.token, read.data.password, where, new Date());
    return redirect("/", { headers: { "Set-Cookie": await writeToken(token, context.secure) } });
  } catch (error) {
    if (error instanceof Unusable) return data({ problem: null, password: error.message }, { status: 400 });
    if (error instanceof NotFound)
      return data({ problem: error.message, password: undefined }, { status: 404 });
    throw error;
  }
}

/** Where the link leads by which a colleague chooses their password. */
export default function Welcome({ loaderData, actionData }: Route.ComponentProps) {
  const { name, email, purpose } = loaderData;
  const busy = useNavigation().state !== "idle";
  return (
    <Door
      title={t("chooseAPassword")}
      words={
        purpose === "invited"
          ? t("welcomeNameChooseAPasswordAnd", { name })
          : t("chooseAnotherPasswordNameYouAre", { name })
      }
    >
      <Form method="post" className="mt-7 flex flex-col gap-5" noValidate>
        <DoorProblem words={actionData?.problem} />
        <p>
          <Sentence
            of={t}
            name="youSignInAsEmail"
            values={{ email }}
            parts={[<strong key="0" className="font-semibold" />]}
          />
        </p>
        {/* For the browser’s own keeper of passwords. */}
        <input type="hidden" autoComplete="username" value={email} readOnly />
        <Field
          label={t("password")}
          problem={actionData?.password}
          hint={t("atLeast10CharactersSeveralWords")}
        >
          {(attributes) => (
            <input {...attributes} name="password" type="password" autoComplete="new-password" autoFocus />
          )}
        </Field>
        <Button type="submit" disabled={busy} keys="Enter">
          {t("signIn")}
        </Button>
      </Form>
    </Door>
  );
}

export function ErrorBoundary() {
  return (
    <Door title={t("aLinkThatIsNotGood")} words={t("thisLinkIsNotGoodAny")}>
      <p className="mt-5">{t("itWasUsedReplacedOrIs")}</p>
      <p className="mt-3">
        <a href="/sign-in" className="quiet-link">
          {t("signIn")}
        </a>
      </p>
    </Door>
  );
}
