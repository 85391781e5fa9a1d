import type { ReactNode } from "react";
import { Controller, type ControllerRenderProps, type FieldPath } from "react-hook-form";
import type { Filing, OpenReply } from "#server/writing/open";
import { channelName, partName, replyChannels, replyParts } from "#core/words/named";
import { Checkbox } from "../../ui/checkbox";
import { DateField } from "../../ui/date-field";
import { FieldProblem, FormProblem } from "../../ui/form";
import { ManyPicker } from "../../ui/many-picker";
import { said, Select } from "../../ui/select";
import type { FilingHandle } from "./use-filing";
import { t } from "../../words/writing";

/** Where a reply stands and what it is for: everything about it but its words. */
export function FilingForm({ open, handle }: { open: OpenReply; handle: FilingHandle }) {
  const { shelves, owners, known, mayFile } = open;
  const { form } = handle;
  const { errors } = form.formState;
  const control = <Name extends FieldPath<Filing>>(
    name: Name,
    render: (field: ControllerRenderProps<Filing, Name>) => ReactNode,
  ) => <Controller control={form.control} name={name} render={({ field }) => <>{render(field)}</>} />;
  const day = (name: "reviewBy" | "seasonFrom" | "seasonUntil", label: string, min?: string | null) =>
    control(name, ({ value, onChange }) => (
      <DateField
        label={label}
        value={value ?? ""}
        onChange={(next) => onChange(next || null)}
        min={min ?? undefined}
        disabled={!mayFile}
      />
    ));
  return (
    <form
      noValidate
      className="flex flex-col gap-3 text-sm"
      // It saves itself.
      onSubmit={(event) => event.preventDefault()}
    >
      <fieldset disabled={!mayFile} className="flex flex-col gap-3">
        <legend className="sr-only">{t("filing")}</legend>
        <Row label={t("shelf")} problem={errors.shelf?.message}>
          {control("shelf", ({ value, onChange }) => (
            <Select
              label={t("shelf")}
              value={value}
              options={shelves.map((shelf) => [shelf.key, shelf.name] as const)}
              onChange={onChange}
              disabled={!mayFile}
            />
          ))}
        </Row>
        <Row label={t("part")}>
          {control("part", ({ value, onChange }) => (
            <Select
              label={t("part")}
              value={value}
              options={said(replyParts, partName)}
              onChange={onChange}
              disabled={!mayFile}
            />
          ))}
        </Row>
        <Row label={t("channels")} problem={errors.channels?.message}>
          {control("channels", ({ value, onChange }) => (
            <span className="flex gap-4">
              {replyChannels.map((channel) => (
                <label key={channel} className="flex items-center gap-1.5">
                  <Checkbox
                    checked={value.includes(channel)}
                    disabled={!mayFile}
                    onChange={(on) =>
                      onChange(on ? [...value, channel] : value.filter((one) => one !== channel))
                    }
                  />
                  {channelName(channel)}
                </label>
              ))}
            </span>
          ))}
        </Row>
        <Row label={t("tags")} problem={errors.tags?.message}>
          {control("tags", ({ value, onChange }) => (
            <ManyPicker
              label={t("tags")}
              value={value}
              options={known.tags}
              onChange={onChange}
              placeholder={t("none")}
              open
              disabled={!mayFile}
            />
          ))}
        </Row>
        <Row label={t("isAbout")} problem={errors.topics?.message}>
          {control("topics", ({ value, onChange }) => (
            <ManyPicker
              label={t("topics")}
              value={value}
              options={known.topics}
              onChange={onChange}
              placeholder={t("anyCase")}
              open
              disabled={!mayFile}
            />
          ))}
          {open.own.details.length > 0 &&
            control("withBooking", ({ value, onChange }) => (
              <label className="flex items-center gap-1.5">
                <Checkbox checked={value} disabled={!mayFile} onChange={onChange} />
                {t("onlyCasesWithABooking")}
              </label>
            ))}
        </Row>
        <Row label={t("owner")} problem={errors.owner?.message}>
          {control("owner", ({ value, onChange }) => (
            <Select
              label={t("owner")}
              value={value === null ? "" : String(value)}
              options={[["", t("nobody")], ...owners.map(({ id, name }) => [String(id), name] as const)]}
              onChange={(owner) => onChange(owner === "" ? null : Number(owner))}
              disabled={!mayFile}
            />
          ))}
        </Row>
        <Row label={t("reviewBy")} problem={errors.reviewBy?.message}>
          {day("reviewBy", t("reviewBy"))}
        </Row>
        <Row label={t("season")} problem={errors.seasonFrom?.message ?? errors.seasonUntil?.message}>
          <span className="flex flex-wrap items-baseline gap-2">
            {day("seasonFrom", t("seasonFrom"))}
            {t("to")}
            {day("seasonUntil", t("seasonUntil"))}
          </span>
        </Row>
        <Row label={t("note")} problem={errors.note?.message}>
          <textarea
            {...form.register("note")}
            aria-label={t("note")}
            className="boxed-field"
            rows={3}
            placeholder={t("forColleaguesNeverSent")}
          />
        </Row>
        {!mayFile && <p className="text-soft">{t("curatorsFileRepliesOnSharedShelves")}</p>}
      </fieldset>
      <FormProblem words={errors.root?.message} />
    </form>
  );
}

function Row({
  label,
  problem,
  children,
}: {
  label: string;
  problem?: string | undefined;
  children: ReactNode;
}) {
  return (
    <div className="grid grid-cols-[5rem_minmax(0,1fr)] items-baseline gap-2">
      {label}
      <span className="flex flex-col items-stretch gap-1.5">
        {children}
        <FieldProblem words={problem} />
      </span>
    </div>
  );
}
