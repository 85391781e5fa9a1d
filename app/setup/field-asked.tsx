import { Controller, type Control, type FieldValues, type Path } from "react-hook-form";
import { Checkbox } from "../ui/checkbox";
import { FieldProblem } from "../ui/form";
import { ManyPicker } from "../ui/many-picker";
import { t } from "../words/setup";

interface Props<Values extends FieldValues> {
  isChoice: boolean;
  isOfCase: boolean;
  /** Topics that cases have. */
  topics: string[];
  control: Control<Values, unknown, FieldValues>;
  /** What is wrong with what it is chosen from. */
  problem: string | undefined;
}

/** How a field is asked for: what it is chosen from, on which cases, and whether it must be there. */
export function FieldAsked<Values extends FieldValues>({
  isChoice,
  isOfCase,
  topics,
  control,
  problem,
}: Props<Values>) {
  return (
    <div className="mt-3 flex flex-wrap items-end gap-x-6 gap-y-3 text-sm">
      {isChoice && (
        <label className="flex min-w-72 grow flex-col gap-1">
          {t("whatItIsChosenFrom")}
          <Controller
            control={control}
            name={"options" as Path<Values>}
            render={({ field }) => (
              <ManyPicker
                label={t("whatItIsChosenFrom")}
                value={field.value as string[]}
                options={field.value as string[]}
                onChange={field.onChange}
                placeholder={t("writeTheChoices")}
                open
              />
            )}
          />
          <FieldProblem words={problem} />
        </label>
      )}
      {isOfCase && (
        <label className="flex min-w-48 flex-col gap-1">
          {t("onCasesAbout")}
          <Controller
            control={control}
            name={"topics" as Path<Values>}
            render={({ field }) => (
              <ManyPicker
                label={t("onCasesAbout")}
                value={field.value as string[]}
                options={topics}
                onChange={field.onChange}
                placeholder={t("anything")}
                open
              />
            )}
          />
        </label>
      )}
      <label className="flex items-center gap-1.5 pb-1">
        <Controller
          control={control}
          name={"required" as Path<Values>}
          render={({ field }) => <Checkbox checked={field.value} onChange={field.onChange} />}
        />
        {t("lettersAreWorthALookWithoutIt")}
      </label>
    </div>
  );
}
