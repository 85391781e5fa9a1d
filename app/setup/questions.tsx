import { questionSchema } from "#core/forms/question";
import { questionKinds, type QuestionKind } from "#core/questions/question";
import { listQuestions, type QuestionRow } from "#server/questions/questions";
import { signedIn } from "#server/web/context";
import { loaderResult } from "#server/web/results";
import { Answers } from "../public/answers";
import { Button } from "../ui/button";
import { Disclosure } from "../ui/disclosure";
import { FormProblem, LineInput, taken, useFormOf } from "../ui/form";
import { useAsk } from "../ui/ask";
import { useSave } from "../ui/use-save";
import { BoxField, LinesField } from "./box-field";
import { ChoiceField } from "./choice-field";
import type { Route } from "./+types/questions";
import { t } from "../words/setup";

export async function loader(args: Route.LoaderArgs) {
  const { viewer, em } = await signedIn(args);
  return loaderResult(async () => ({ questions: await listQuestions(em, viewer) }));
}

const kindWords = (): Record<QuestionKind, string> => ({
  scale: t("oneToFive"),
  choice: t("oneOfSeveral"),
  date: t("aDay"),
  yes_no: t("yesOrNo"),
});

const statuses = () =>
  [
    ["", t("staysAsItIs")],
    ["waiting", t("waitsForUs")],
    ["aside", t("isSetAside")],
    ["closed", t("isClosed")],
  ] as const;

/** Questions with fixed answers that replies ask, and what was answered. */
export default function Questions({ loaderData }: Route.ComponentProps) {
  const { questions } = loaderData;
  return (
    <>
      <title>{t("questionsPlainShelf")}</title>
      <h1 className="text-xl font-bold">{t("questions")}</h1>
      <p className="mt-1 max-w-3xl text-soft">{t("aReplyAsksOneByItsToken")}</p>
      <ul className="mt-4 flex max-w-4xl flex-col border-t border-line">
        {questions.map((question) => (
          <li key={question.id} className="border-b border-line py-4">
            <QuestionForm question={question} />
          </li>
        ))}
      </ul>
      <Disclosure words={t("anotherQuestion")} className="mt-6 max-w-4xl" open={questions.length === 0}>
        <QuestionForm key={questions.length} question={null} />
      </Disclosure>
    </>
  );
}

function QuestionForm({ question }: { question: QuestionRow | null }) {
  const { act, send, problem } = useSave("/setup");
  const ask = useAsk();
  const form = useFormOf(questionSchema, {
    key: question?.key ?? "",
    words: question?.words ?? "",
    kind: question?.kind ?? "scale",
    options: question?.options ?? [],
    takesRemark: question?.takesRemark ?? false,
    days: question?.days ?? 30,
    setsStatus: question?.setsStatus ?? null,
    setsTopic: question?.setsTopic ?? "",
  });
  const { register, formState } = form;
  const { errors, isDirty, isSubmitting } = formState;
  const [kind, words, options, takesRemark] = form.watch(["kind", "words", "options", "takesRemark"]);
  const save = form.handleSubmit(async (input) => {
    if (!taken(form, await act("save-question", { id: question?.id ?? null, question: input }))) return;
    form.reset(form.getValues());
  });
  const remove = async (known: QuestionRow) => {
    const sure =
      known.asked === 0 ||
      (await ask({
        title: t("removeThisQuestion"),
        words: t("whatWasAnsweredGoesToo", { count: known.asked }),
        yes: t("remove"),
      }));
    if (sure) await send(`questions/${known.id}/remove`, {}, t("questionIsRemoved"));
  };
  return (
    <form
      noValidate
      aria-label={question?.words ?? t("anotherQuestion")}
      className="mt-2 grid gap-x-8 gap-y-3 text-sm md:grid-cols-[minmax(0,3fr)_minmax(0,2fr)]"
      onSubmit={(event) => void save(event)}
    >
      <div className="flex flex-col gap-3">
        <label className="flex flex-col gap-0.5">
          {t("theQuestion")}
          <LineInput field={register("words")} problem={errors.words?.message} className="text-base" />
        </label>
        <div className="flex flex-wrap items-start gap-x-6 gap-y-2">
          <label className="flex w-44 flex-col gap-0.5">
            {t("itsName")}
            <LineInput
              field={register("key")}
              problem={errors.key?.message}
              className="font-mono text-base"
            />
          </label>
          <ChoiceField
            form={form}
            name="kind"
            label={t("isAnsweredBy")}
            options={questionKinds.map((one) => [one, kindWords()[one]] as const)}
            className="w-44"
          />
          <label className="flex w-28 flex-col gap-0.5">
            {t("forDays")}
            <LineInput
              type="number"
              field={register("days", { valueAsNumber: true })}
              problem={errors.days?.message}
              className="text-base"
            />
          </label>
        </div>
        {kind === "choice" && <LinesField form={form} name="options" label={t("answersOnePerLine")} />}
        <BoxField form={form} name="takesRemark" label={t("withARemark")} className="self-start" />
        <div className="flex flex-wrap items-start gap-x-6 gap-y-2">
          <ChoiceField
            form={form}
            name="setsStatus"
            label={t("onceAnsweredTheCase")}
            options={statuses()}
            read={(value) => (value === "" ? null : value)}
            className="w-52"
          />
          <label className="flex w-52 flex-col gap-0.5">
            {t("andItsTopicBecomes")}
            <LineInput
              field={register("setsTopic")}
              problem={errors.setsTopic?.message}
              placeholder={t("staysAsItIs")}
              className="text-base"
            />
          </label>
        </div>
        <FormProblem words={errors.root?.message ?? problem ?? undefined} />
        <p className="flex items-baseline gap-5">
          {(question === null || isDirty) && (
            <Button type="submit" disabled={isSubmitting}>
              {question === null ? t("addTheQuestion") : t("save")}
            </Button>
          )}
          {question !== null && (
            <button type="button" className="quiet-link" onClick={() => void remove(question)}>
              {t("remove")}
            </button>
          )}
        </p>
      </div>
      <div>
        <section aria-label={t("asCustomersSeeIt")} inert className="border-l border-line pl-5">
          <p className="mb-2 text-soft">{t("asCustomersSeeIt")}</p>
          <Answers question={{ words: words || t("theQuestion"), kind, options, takesRemark }} busy={false} />
        </section>
        {question !== null && question.asked > 0 && (
          <p className="mt-4 border-l border-line pl-5 text-soft">
            {t("askedTimes", { count: question.asked })}
            {question.answers.map((one) => ` · ${one.words}: ${one.times}`).join("")}
          </p>
        )}
        {question !== null && (
          <p className="mt-2 border-l border-line pl-5 text-soft">
            <code className="font-mono text-xs">{`{$ask.${question.key}}`}</code>{" "}
            <code className="font-mono text-xs">{`{$answer.${question.key}}`}</code>
          </p>
        )}
      </div>
    </form>
  );
}
