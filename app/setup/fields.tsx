import { Controller } from "react-hook-form";
import { houseTypes, newFieldSchema } from "#core/forms/house";
import { listFields } from "#server/house/fields";
import { requireRole } from "#server/people/viewer";
import { loaderResult } from "#server/web/results";
import { signedIn } from "#server/web/context";
import { Button } from "../ui/button";
import { FormProblem, LineInput, taken, useFormOf } from "../ui/form";
import { Select } from "../ui/select";
import type { Route } from "./+types/fields";
import { useSave } from "../ui/use-save";
import { t } from "../words/setup";

export async function loader(args: Route.LoaderArgs) {
  const { viewer, em } = await signedIn(args);
  return loaderResult(async () => {
    requireRole(viewer, "lead");
    return { fields: await listFields(em) };
  });
}

/** Fields that the house adds to its cases; each is a token at once. */
export default function Fields({ loaderData }: Route.ComponentProps) {
  const { fields } = loaderData;
  const { send, problem } = useSave("/setup");
  return (
    <>
      <title>{t("caseFieldsPlainShelf")}</title>
      <h1 className="text-xl font-bold">{t("caseFields")}</h1>
      <p className="mt-1 text-soft">{t("whatYourCasesSayBeyondThe")}</p>
      {(["case", "booking"] as const).map((of) => {
        const listed = fields.filter((field) => field.of === of);
        return listed.length === 0 ? null : (
          <section key={of} aria-label={OF()[of]}>
            <h2 className="mt-6 font-bold">{OF()[of]}</h2>
            <ul className="mt-1 max-w-2xl">
              {listed.map((field) => (
                <li key={field.key} className="flex items-baseline gap-4 border-b border-line py-2">
                  <span className="font-semibold">{field.label}</span>
                  <code className="text-sm text-soft">{`{$${of}.${field.key}}`}</code>
                  <span className="text-sm text-soft">{field.type.replace("_", " ")}</span>
                  <span className="ml-auto text-sm text-soft">
                    {field.uses === 0 ? (
                      <button
                        type="button"
                        className="quiet-link"
                        onClick={() =>
                          void send(
                            `fields/${of}/${field.key}/remove`,
                            {},
                            t("fieldIsRemoved", { field: field.label }),
                          )
                        }
                      >
                        {t("remove")}
                      </button>
                    ) : (
                      t("usedByCountReplies", { count: field.uses })
                    )}
                  </span>
                </li>
              ))}
            </ul>
          </section>
        );
      })}
      {fields.length === 0 && (
        <p className="mt-6 font-serif text-lg text-soft">{t("casesHaveOnlyTheUsualFields")}</p>
      )}
      <FormProblem words={problem ?? undefined} />
      <NewField />
    </>
  );
}

const OF = () => ({ case: t("ofTheCase"), booking: t("ofItsBookingAsTheBooking") }) as const;

function NewField() {
  const form = useFormOf(newFieldSchema, { label: "", type: "text", of: "case" });
  const { act } = useSave("/setup");
  const { errors } = form.formState;
  const add = form.handleSubmit(async (input) => {
    if (taken(form, await act("new-field", input, t("repliesCanUseItNow")))) form.reset();
  });
  return (
    <form
      noValidate
      className="mt-6 flex max-w-2xl flex-wrap items-end gap-5"
      onSubmit={(event) => void add(event)}
    >
      <label className="flex grow flex-col gap-1 text-sm">
        {t("aNewField")}
        <LineInput
          field={form.register("label")}
          problem={errors.label?.message}
          className="text-base"
          placeholder={t("harbourConcerned")}
        />
      </label>
      <label className="flex flex-col gap-1 text-sm">
        {t("kind")}
        <Controller
          control={form.control}
          name="type"
          render={({ field }) => (
            <Select
              className="lined-field text-base"
              value={field.value}
              options={houseTypes.map((one) => [one, one.replace("_", " ")] as const)}
              onChange={field.onChange}
            />
          )}
        />
      </label>
      <label className="flex flex-col gap-1 text-sm">
        {t("of")}
        <Controller
          control={form.control}
          name="of"
          render={({ field }) => (
            <Select
              className="lined-field text-base"
              value={field.value ?? "case"}
              options={[
                ["case", t("theCase")],
                ["booking", t("itsBooking")],
              ]}
              onChange={field.onChange}
            />
          )}
        />
      </label>
      <Button type="submit">{t("addField")}</Button>
      <FormProblem words={errors.root?.message} />
    </form>
  );
}
