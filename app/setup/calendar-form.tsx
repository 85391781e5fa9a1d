import * as z from "zod/mini";
import { weekdays, type Weekday } from "#core/clock/calendar";
import { calendarFormSchema } from "#core/forms/answer-times";
import type { CalendarRow } from "#server/house/answer-times";
import { Button } from "../ui/button";
import { FormProblem, LineInput, taken, useFormOf } from "../ui/form";
import { sayDay } from "../ui/say-day";
import { useFound } from "../ui/use-found";
import { useSave } from "../ui/use-save";
import { ZoneField } from "../ui/zone-field";
import { LinesField } from "./box-field";
import { ChoiceField } from "./choice-field";
import { countries } from "./countries";
import { t } from "../words/setup";

const region = z.object({ code: z.string(), name: z.string() });
const regions = z.pipe(
  z.object({ regions: z.array(region) }),
  z.transform((answer: { regions: z.infer<typeof region>[] }) => answer.regions),
);

const dayNames = (): Record<Weekday, string> => ({
  ...{ mon: t("monday"), tue: t("tuesday"), wed: t("wednesday"), thu: t("thursday"), fri: t("friday") },
  ...{ sat: t("saturday"), sun: t("sunday") },
});

/** Usual hours to begin with. */
const OFFICE = "09:00–17:00";
const begun: Record<Weekday, string> = {
  ...{ mon: OFFICE, tue: OFFICE, wed: OFFICE, thu: OFFICE, fri: OFFICE, sat: "", sun: "" },
};

const read = (value: string) => (value === "" ? null : value);

/** Business hours: each day's, the holidays of a country, and days of their own. */
export function CalendarForm({ calendar, timeZone }: { calendar: CalendarRow | null; timeZone: string }) {
  const { act, send, problem } = useSave("/setup");
  const form = useFormOf(calendarFormSchema, {
    name: calendar?.name ?? "",
    timeZone: calendar?.timeZone ?? timeZone,
    hours: calendar?.hours ?? begun,
    holidays: calendar?.holidays ?? [],
    country: calendar?.country ?? null,
    region: calendar?.region ?? null,
  });
  const { errors, isDirty, isSubmitting } = form.formState;
  const country = form.watch("country");
  const found = useFound(country === null ? null : "/setup/regions", country ?? "", regions);
  const save = form.handleSubmit(async (input) => {
    if (!taken(form, await act("save-calendar", { id: calendar?.id ?? null, calendar: input }))) return;
    form.reset(calendar ? input : undefined);
  });
  return (
    <form
      noValidate
      aria-label={calendar?.name ?? t("otherHours")}
      className="mt-2 grid gap-x-8 gap-y-3 text-sm md:grid-cols-[minmax(0,2fr)_minmax(0,3fr)]"
      onSubmit={(event) => void save(event)}
    >
      <div className="flex flex-col gap-3">
        <label className="flex flex-col gap-0.5">
          {t("name")}
          <LineInput field={form.register("name")} problem={errors.name?.message} className="text-base" />
        </label>
        <ZoneField control={form.control} name="timeZone" />
        <ChoiceField
          form={form}
          name="country"
          label={t("closedOnHolidaysOf")}
          options={[["", t("noCountry")], ...countries]}
          read={(value) => {
            form.setValue("region", null);
            return read(value);
          }}
        />
        {found.length > 0 && (
          <ChoiceField
            form={form}
            name="region"
            label={t("andOfItsRegion")}
            options={[["", t("noRegion")], ...found.map(({ code, name }) => [code, name] as const)]}
            read={read}
          />
        )}
        {calendar !== null && calendar.coming.length > 0 && (
          <p className="text-soft">
            {t("closedNext")}{" "}
            {calendar.coming
              .map(({ date, name }) => (name === "" ? sayDay(date) : `${sayDay(date)} (${name})`))
              .join(", ")}
          </p>
        )}
      </div>
      <div className="flex flex-col gap-3">
        <fieldset className="grid grid-cols-[6rem_minmax(0,1fr)] items-baseline gap-x-3 gap-y-1">
          <legend className="sr-only">{t("hoursOfEachDay")}</legend>
          {weekdays.map((day) => (
            <label key={day} className="contents">
              <span>{dayNames()[day]}</span>
              <LineInput
                field={form.register(`hours.${day}`)}
                problem={errors.hours?.[day]?.message}
                placeholder={t("closed")}
                className="text-base tabular-nums"
              />
            </label>
          ))}
        </fieldset>
        <LinesField form={form} name="holidays" label={t("closedBesidesOnePerLine")} />
        <FormProblem words={errors.root?.message ?? problem ?? undefined} />
        <p className="flex items-baseline gap-5">
          {(calendar === null || isDirty) && (
            <Button type="submit" disabled={isSubmitting}>
              {calendar === null ? t("addTheHours") : t("save")}
            </Button>
          )}
          {calendar !== null && (
            <button
              type="button"
              className="quiet-link"
              onClick={() => void send(`calendars/${calendar.id}/remove`, {}, t("hoursAreRemoved"))}
            >
              {t("remove")}
            </button>
          )}
        </p>
      </div>
    </form>
  );
}
