import { Controller, type Control, type FieldPath, type FieldValues } from "react-hook-form";
import { FieldProblem } from "./form";
import { Picker } from "./picker";
import { t } from "../words/ui";

interface Props<Input extends FieldValues> {
  control: Control<Input, unknown, unknown>;
  name: FieldPath<Input>;
}

const groups = (value: string) => {
  const zones = [...new Set([value, "UTC", ...Intl.supportedValuesOf("timeZone")])];
  const regions = [...new Set(zones.map((zone) => zone.split("/")[0] ?? zone))];
  return regions.map((heading) => ({
    heading,
    options: zones
      .filter((zone) => zone === heading || zone.startsWith(`${heading}/`))
      .map((zone) => [zone, zone.replaceAll("_", " ")] as const),
  }));
};

/** A time zone in a form: one of those that the browser knows. */
export function ZoneField<Input extends FieldValues>({ control, name }: Props<Input>) {
  return (
    <Controller
      control={control}
      name={name}
      render={({ field, fieldState }) => {
        const value = String(field.value);
        return (
          <div className="flex flex-col gap-0.5 text-sm">
            {t("timeZone")}
            <Picker
              label={t("timeZone")}
              value={value}
              words={value.replaceAll("_", " ")}
              groups={groups(value)}
              onChange={field.onChange}
              className="lined-field text-base"
            />
            <FieldProblem words={fieldState.error?.message} />
          </div>
        );
      }}
    />
  );
}
