import { Controller, useWatch } from "react-hook-form";
import { Link } from "react-router";
import * as z from "zod/mini";
import { factTypes, newFactSchema } from "#core/forms/house";
import { listFacts } from "#server/house/facts";
import { signedIn } from "#server/web/context";
import { Button } from "../ui/button";
import { FormProblem, LineInput, taken, useFormOf } from "../ui/form";
import { Select } from "../ui/select";
import { relativeTime, useClock } from "../ui/time";
import type { Route } from "./+types/facts";
import { draftOf, FactValueField, factWords, valueOfDraft } from "./fact-value";
import { useSave } from "../ui/use-save";
import { t } from "../words/setup";

export async function loader(args: Route.LoaderArgs) {
  const { viewer, em, now } = await signedIn(args);
  return { facts: await listFacts(em, viewer, now), mayAdd: viewer.role !== "agent" };
}

/** The values that the house keeps once and every reply uses. */
export default function Facts({ loaderData }: Route.ComponentProps) {
  const { facts, mayAdd } = loaderData;
  const { now, timeZone } = useClock();
  return (
    <>
      <title>{t("houseFactsPlainShelf")}</title>
      <h1 className="text-xl font-bold">{t("houseFacts")}</h1>
      <p className="mt-1 text-soft">{t("keptOnceEveryReplyThatUses")}</p>
      <table className="mt-4 w-full max-w-4xl border-collapse text-left">
        <thead className="text-sm text-soft">
          <tr className="border-b border-ink">
            <th scope="col" className="py-1.5 pr-6 font-normal">
              {t("fact")}
            </th>
            <th scope="col" className="py-1.5 pr-6 font-normal">
              {t("value")}
            </th>
            <th scope="col" className="py-1.5 pr-6 font-normal whitespace-nowrap">
              {t("usedBy")}
            </th>
            <th scope="col" className="py-1.5 font-normal whitespace-nowrap">
              {t("changedBy")}
            </th>
          </tr>
        </thead>
        <tbody>
          {facts.map((fact) => (
            <tr key={fact.key} className="border-b border-line align-top">
              <td className="py-2 pr-6">
                <Link to={`/setup/facts/${fact.key}`} className="font-semibold underline underline-offset-2">
                  {fact.label}
                </Link>
                <code className="block text-sm text-soft">{`{$house.${fact.key}}`}</code>
              </td>
              <td className="max-w-md py-2 pr-6 font-serif">
                {factWords(fact.value, fact.type)}
                {fact.next && (
                  <span className="block text-sm text-look">
                    {t("factwordsFromFrom", {
                      factWords: factWords(fact.next.value, fact.type),
                      from: relativeTime(Date.parse(fact.next.from), now, timeZone),
                    })}
                  </span>
                )}
              </td>
              <td className="py-2 pr-6 text-sm whitespace-nowrap tabular-nums">{usedBy(fact)}</td>
              <td className="py-2 text-sm">
                {fact.changedBy === "agent"
                  ? t("everyone")
                  : fact.changedBy === "curator"
                    ? t("curators")
                    : t("leads")}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {facts.length === 0 && (
        <p className="mt-6 font-serif text-lg text-soft">{t("thereAreNoHouseFactsYet")}</p>
      )}
      {mayAdd && <NewFact />}
    </>
  );
}

function usedBy({ uses, papers }: { uses: number; papers: number }): string {
  const replies = t("countReplies", { count: uses });
  if (papers === 0) return uses === 0 ? t("usedByNothing") : replies;
  return uses === 0 ? t("everyLetter") : t("repliesAndEveryLetter", { replies });
}

const { label, type } = newFactSchema.shape;
/** A new fact as its form has it, and as it is sent. */
const newFactForm = z.pipe(
  z.object({ label, type, draft: z.object({ text: z.string(), currency: z.string() }) }),
  z.transform(({ label, type, draft }) => ({
    label,
    type,
    value: valueOfDraft(type, draft),
    changedBy: "curator",
  })),
);

function NewFact() {
  const { act } = useSave("/setup");
  const form = useFormOf(newFactForm, { label: "", type: "text", draft: draftOf(null) });
  const { errors, isSubmitting } = form.formState;
  const type = useWatch({ control: form.control, name: "type" });
  const add = form.handleSubmit(async (fact) => {
    if (taken(form, await act("new-fact", fact, t("thereIsANewHouseFact")))) form.reset();
  });
  return (
    <form noValidate className="mt-8 flex max-w-2xl flex-col gap-3" onSubmit={(event) => void add(event)}>
      <h2 className="font-bold">{t("aNewFact")}</h2>
      <label className="grid grid-cols-[7rem_1fr] items-baseline gap-3">
        {t("whatItIs")}
        <span className="flex flex-col">
          <LineInput
            field={form.register("label")}
            problem={errors.label?.message}
            placeholder={t("fareForADog")}
          />
        </span>
      </label>
      <label className="grid grid-cols-[7rem_1fr] items-baseline gap-3">
        {t("kind")}
        <Controller
          control={form.control}
          name="type"
          render={({ field }) => (
            <Select
              value={field.value}
              options={factTypes.map((one) => [one, one.replace("_", " ")] as const)}
              onChange={field.onChange}
            />
          )}
        />
      </label>
      <div className="grid grid-cols-[7rem_1fr] items-baseline gap-3">
        {t("value")}
        <Controller
          control={form.control}
          name="draft"
          render={({ field }) => <FactValueField type={type} draft={field.value} onChange={field.onChange} />}
        />
      </div>
      <FormProblem words={errors.root?.message} />
      <Button type="submit" disabled={isSubmitting}>
        {t("addIt")}
      </Button>
    </form>
  );
}
