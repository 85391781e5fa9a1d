import { data, Form, redirect, useNavigation } from "react-router";
import { z } from "zod";
import { entityManager } from "#server/db/orm";
import { openQuestion, pressByLink } from "#server/questions/press";
import { slowPressing } from "#server/questions/pace";
import { readForm } from "#server/web/body";
import { loaderResult } from "#server/web/results";
import { Conflict, Unusable } from "#server/errors";
import { letterFontLink } from "../ui/fonts";
import type { Route } from "./+types/question";
import { Answers } from "./answers";
import { t } from "../words/public";

export const links = () => [letterFontLink];

/** No search finds it. */
export const headers = () => ({ "X-Robots-Tag": "noindex" });

/** Shows the question. Whoever follows the link, a person or a scanner, changes nothing by it. */
export async function loader({ params }: Route.LoaderArgs) {
  const em = await entityManager();
  return loaderResult(() => openQuestion(em, params.token, new Date()));
}

const pressed = z.object({
  answer: z.string().max(200).default(""),
  remark: z.string().max(20_000).default(""),
});

export async function action({ request, params, context }: Route.ActionArgs) {
  const em = await entityManager();
  return loaderResult(async () => {
    await slowPressing(context.address);
    const given = pressed.parse(Object.fromEntries(await readForm(request)));
    try {
      await pressByLink(em, params.token, given, new Date());
    } catch (error) {
      if (error instanceof Unusable || error instanceof Conflict)
        return data({ problem: error.message }, { status: 400 });
      throw error;
    }
    return redirect(`/q/${params.token}`);
  });
}

/** A question that a letter asked, with its answers to press. */
export default function Question({ loaderData, actionData }: Route.ComponentProps) {
  const { house, answer, expired, ...question } = loaderData;
  const isBusy = useNavigation().state !== "idle";
  return (
    <main className="mx-auto min-h-dvh max-w-xl bg-sheet px-6 py-8">
      <title>{`${question.words} · ${house}`}</title>
      <h1 className="inline-block border-b-4 border-accent text-xl font-bold">{house}</h1>
      {answer !== null ? (
        <div role="status" className="mt-6 font-serif text-letter">
          <p>{question.words}</p>
          <p className="mt-1 font-semibold">{answer}</p>
          <p className="mt-4">{t("thankYouWeHaveYourAnswer")}</p>
        </div>
      ) : expired ? (
        <p role="status" className="mt-6 font-serif text-letter">
          {t("itIsTooLateToAnswer")}
        </p>
      ) : (
        <Form method="post" className="mt-6">
          {actionData && (
            <p role="alert" className="mb-4 border-l-[3px] border-stop bg-stop-wash px-3 py-2 text-stop">
              {actionData.problem}
            </p>
          )}
          <Answers question={question} busy={isBusy} />
        </Form>
      )}
    </main>
  );
}
