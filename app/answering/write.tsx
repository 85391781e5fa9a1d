import { useNavigate, useSearchParams } from "react-router";
import { Controller } from "react-hook-form";
import * as z from "zod/mini";
import { beginSchema } from "#core/forms/begin";
import { signedIn } from "#server/web/context";
import { useAct } from "../ui/act";
import { Button } from "../ui/button";
import { FieldProblem, FormProblem, LineInput, taken, useFormOf } from "../ui/form";
import { ChosenAddress } from "./sending/chosen-address";
import type { Route } from "./+types/write";
import { t } from "../words/answering";

export async function loader(args: Route.LoaderArgs) {
  const { viewer } = await signedIn(args);
  return { team: viewer.teamName };
}

const begun = z.object({ number: z.number() });

/** A mail to a customer that nobody asked for: to whom, about what; its words are written as an answer is. */
export default function Write({ loaderData }: Route.ComponentProps) {
  const [params] = useSearchParams();
  const navigate = useNavigate();
  const act = useAct();
  const form = useFormOf(beginSchema, { address: params.get("to") ?? "", subject: "" });
  const { errors, isSubmitting } = form.formState;
  const begin = form.handleSubmit(async (input) => {
    const done = await act("/cases/begin", input, begun);
    if (taken(form, done) && done.ok) await navigate(`/cases/${done.data.number}`);
  });
  return (
    <main className="mx-auto w-full max-w-3xl grow px-6 py-8">
      <title>{t("aNewMailPlainShelf")}</title>
      <h1 className="text-xl font-bold">{t("aNewMail")}</h1>
      <p className="mt-1 text-soft">{t("itIsACaseOfTeam", { team: loaderData.team })}</p>
      <form noValidate className="mt-6 flex flex-col gap-5" onSubmit={(event) => void begin(event)}>
        <Controller
          control={form.control}
          name="address"
          render={({ field }) => (
            <p className="flex flex-wrap items-baseline gap-3">
              <span className="text-sm">{t("toWhom")}</span>
              <ChosenAddress label={t("toWhom")} chosen={field.value || null} onChoose={field.onChange} />
              <FieldProblem words={errors.address?.message} />
            </p>
          )}
        />
        <label className="flex flex-col gap-0.5 text-sm">
          {t("subject")}
          <LineInput
            field={form.register("subject")}
            problem={errors.subject?.message}
            maxLength={500}
            className="text-base"
          />
        </label>
        <FormProblem words={errors.root?.message} />
        <p>
          <Button type="submit" disabled={isSubmitting}>
            {t("writeIt")}
          </Button>
        </p>
      </form>
    </main>
  );
}
