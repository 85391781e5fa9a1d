import { useEffect } from "react";
import { Controller } from "react-hook-form";
import { useNavigate } from "react-router";
import { houseSchema } from "#core/forms/house";
import { languageName } from "#core/language/tag";
import { readHouse } from "#server/house/house";
import { signedIn } from "#server/web/context";
import { loaderResult } from "#server/web/results";
import { Button } from "../ui/button";
import { FieldProblem, FormProblem, LineInput, taken, useFormOf } from "../ui/form";
import { ManyPicker } from "../ui/many-picker";
import { Picker } from "../ui/picker";
import { useSave } from "../ui/use-save";
import { ZoneField } from "../ui/zone-field";
import type { Route } from "./+types/house";
import { countries } from "./countries";
import { t } from "../words/setup";

export async function loader(args: Route.LoaderArgs) {
  const { viewer, em } = await signedIn(args);
  return loaderResult(async () => ({ house: await readHouse(em, viewer) }));
}

/** Languages that are offered first; any other can be written by its tag. */
const OFFERED = [
  "en",
  "de",
  "fr",
  "es",
  "it",
  "nl",
  "pt",
  "pl",
  "da",
  "sv",
  "nb",
  "fi",
  "cs",
  "el",
  "tr",
  "ja",
  "zh",
];

/** The house: its name, where it is, and what it writes in. */
export default function HousePage({ loaderData }: Route.ComponentProps) {
  const { hasCases, ...house } = loaderData.house;
  const { act } = useSave("/setup");
  const navigate = useNavigate();
  const form = useFormOf(houseSchema, house);
  const { errors, isSubmitting } = form.formState;
  const isNew = house.timeZone === "UTC" && !hasCases;
  // Most houses are where the lead who sets them up is.
  useEffect(() => {
    if (isNew) form.setValue("timeZone", Intl.DateTimeFormat().resolvedOptions().timeZone);
  }, [isNew, form]);
  const save = form.handleSubmit(async (input) => {
    if (taken(form, await act("save-house", input))) await navigate("/setup");
  });
  return (
    <>
      <title>{t("theHousePlainShelf")}</title>
      <h1 className="text-xl font-bold">{t("theHouse")}</h1>
      <p className="mt-1 text-soft">{t("whatLettersSayOfAllOf")}</p>
      <form noValidate className="mt-5 flex max-w-md flex-col gap-4" onSubmit={(event) => void save(event)}>
        <label className="flex flex-col gap-0.5 text-sm">
          {t("name")}
          <LineInput field={form.register("name")} problem={errors.name?.message} className="text-base" />
        </label>
        <label className="flex flex-col gap-0.5 text-sm">
          {t("lettersBeforeACasesNumber")}
          <LineInput
            field={form.register("casePrefix")}
            problem={errors.casePrefix?.message}
            disabled={hasCases}
            className="w-24 text-base disabled:opacity-60"
          />
          {hasCases && <span className="text-soft">{t("theyStandInLettersThatCustomers")}</span>}
        </label>
        <ZoneField control={form.control} name="timeZone" />
        <div className="flex flex-col gap-0.5 text-sm">
          {t("languagesThatYouWriteInThe")}
          <Controller
            control={form.control}
            name="languages"
            render={({ field, fieldState }) => (
              <>
                <ManyPicker
                  label={t("languages")}
                  value={field.value}
                  options={OFFERED}
                  onChange={field.onChange}
                  placeholder={t("none")}
                  words={field.value.map((tag) => `${languageName(tag)} (${tag})`).join(", ")}
                  nameOf={languageName}
                  className="lined-field text-base"
                  open
                />
                <FieldProblem words={fieldState.error?.message ?? errors.languages?.root?.message} />
              </>
            )}
          />
        </div>
        <div className="flex flex-col gap-0.5 text-sm">
          {t("countryForHowDatesAndNumbers")}
          <Controller
            control={form.control}
            name="region"
            render={({ field }) => (
              <Picker
                label={t("country")}
                value={field.value ?? ""}
                words={countries.find(([code]) => code === field.value)?.[1] ?? t("asTheLanguageDoes")}
                groups={[
                  { heading: t("usual"), options: [["", t("asTheLanguageDoes")]] },
                  { heading: t("countries"), options: countries },
                ]}
                onChange={(code) => field.onChange(code || null)}
                className="lined-field text-base"
              />
            )}
          />
        </div>
        <FormProblem words={errors.root?.message} />
        <Button type="submit" disabled={isSubmitting} className="self-start">
          {t("save")}
        </Button>
      </form>
    </>
  );
}
