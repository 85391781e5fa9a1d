import { useState } from "react";
import { Controller, useFieldArray } from "react-hook-form";
import { Link } from "react-router";
import { contactFormSchema, formFieldKinds } from "#core/forms/contact";
import { listForms, type FormRow } from "#server/contact/forms";
import { listTeams } from "#server/staff/teams";
import { publicBase, signedIn } from "#server/web/context";
import { loaderResult } from "#server/web/results";
import { Button } from "../ui/button";
import { Checkbox } from "../ui/checkbox";
import { Disclosure } from "../ui/disclosure";
import { FieldProblem, FormProblem, LineInput, taken, useFormOf } from "../ui/form";
import { Select } from "../ui/select";
import { useSave } from "../ui/use-save";
import { BoxField, LinesField } from "./box-field";
import { ChoiceField, teamOptions } from "./choice-field";
import { embedHtml } from "./embed";
import type { Route } from "./+types/forms";
import { t } from "../words/setup";

export async function loader(args: Route.LoaderArgs) {
  const { viewer, em } = await signedIn(args);
  return loaderResult(async () => ({
    ...(await listForms(em, viewer)),
    teams: (await listTeams(em)).map(({ id, name }) => ({ id, name })),
    base: publicBase(args.request),
  }));
}

/** Forms by which people write to us from a page, the chat, and the sites that may hold both. */
export default function Forms({ loaderData }: Route.ComponentProps) {
  const { forms, teams, origins, base } = loaderData;
  return (
    <>
      <title>{t("formAndChatPlainShelf")}</title>
      <h1 className="text-xl font-bold">{t("formAndChat")}</h1>
      <p className="mt-1 max-w-3xl text-soft">{t("whatIsWrittenInAForm")}</p>
      <ul className="mt-4 flex max-w-4xl flex-col border-t border-line">
        {forms.map((form) => (
          <li key={form.id} className="border-b border-line py-4">
            <ContactFormForm form={form} teams={teams} base={base} />
          </li>
        ))}
      </ul>
      <Disclosure words={t("anotherForm")} className="mt-6 max-w-4xl" open={forms.length === 0}>
        <ContactFormForm key={forms.length} form={null} teams={teams} base={base} />
      </Disclosure>
      <section aria-label={t("theChat")} className="mt-8 max-w-3xl">
        <h2 className="border-b border-line pb-1 font-bold">{t("theChat")}</h2>
        <p className="mt-2">
          {t("theChatIsAt")}{" "}
          <a href="/chat" target="_blank" rel="noreferrer" className="quiet-link">
            {`${base}/chat`}
          </a>
          {t("itIsOpenWhile")}{" "}
          <Link to="/chats" className="quiet-link">
            {t("takeChats")}
          </Link>
        </p>
        <Html words={t("theChatOnAPage")} html={`<script src="${base}/embed-chat.js" async></script>`} />
      </section>
      <Origins origins={origins} />
    </>
  );
}

function Html({ words, html }: { words: string; html: string }) {
  return (
    <Disclosure words={words} className="mt-2 text-sm">
      <textarea
        readOnly
        aria-label={words}
        rows={Math.min(12, html.split("\n").length)}
        className="boxed-field mt-1 w-full font-mono text-xs"
        value={html}
        onFocus={(event) => event.currentTarget.select()}
      />
    </Disclosure>
  );
}

function Origins({ origins }: { origins: string[] }) {
  const { send, problem } = useSave("/setup");
  const [text, setText] = useState(origins.join("\n"));
  const lines = text
    .split("\n")
    .map((line) => line.trim())
    .filter((line) => line !== "");
  return (
    <section aria-label={t("sitesThatMayHoldThem")} className="mt-8 max-w-3xl">
      <h2 className="border-b border-line pb-1 font-bold">{t("sitesThatMayHoldThem")}</h2>
      <label className="mt-2 flex flex-col gap-1">
        <span className="text-soft">{t("onePerLineAsIn")}</span>
        <textarea
          rows={3}
          className="boxed-field font-mono text-sm"
          value={text}
          onChange={(event) => setText(event.target.value)}
        />
      </label>
      <FormProblem words={problem ?? undefined} />
      {lines.join() !== origins.join() && (
        <Button className="mt-2" onClick={() => void send("save-origins", { origins: lines })}>
          {t("save")}
        </Button>
      )}
    </section>
  );
}

interface FormProps {
  form: FormRow | null;
  teams: { id: number; name: string }[];
  base: string;
}

function ContactFormForm({ form, teams, base }: FormProps) {
  const { act, send, problem } = useSave("/setup");
  const made = useFormOf(contactFormSchema, {
    key: form?.key ?? "",
    title: form?.title ?? "",
    intro: form?.intro ?? "",
    team: form?.team ?? teams[0]?.id ?? 0,
    topics: form?.topics ?? [],
    fields: form?.fields ?? [],
    asksBooking: form?.asksBooking ?? true,
    takesFiles: form?.takesFiles ?? true,
    thanks: form?.thanks ?? "",
    firstMail: form?.firstMail ?? "",
    isOn: form?.isOn ?? true,
  });
  const { register, control, formState } = made;
  const { errors, isDirty, isSubmitting } = formState;
  const { fields, append, remove } = useFieldArray({ control, name: "fields" });
  const save = made.handleSubmit(async (input) => {
    if (!taken(made, await act("save-form", { id: form?.id ?? null, ...input }))) return;
    made.reset(made.getValues());
  });
  return (
    <form
      noValidate
      aria-label={form?.title ?? t("anotherForm")}
      className="mt-2 flex flex-col gap-3 text-sm"
      onSubmit={(event) => void save(event)}
    >
      <div className="flex flex-wrap gap-x-6 gap-y-2">
        <label className="flex w-56 flex-col gap-0.5">
          {t("title")}
          <LineInput field={register("title")} problem={errors.title?.message} className="text-base" />
        </label>
        <label className="flex w-44 flex-col gap-0.5">
          {t("itsAddress")}
          <LineInput field={register("key")} problem={errors.key?.message} className="text-base" />
        </label>
        <ChoiceField
          form={made}
          name="team"
          label={t("team")}
          options={teamOptions(teams)}
          read={Number}
          className="w-52"
        />
      </div>
      <label className="flex flex-col gap-0.5">
        {t("whatStandsAboveIt")}
        <textarea {...register("intro")} rows={2} className="boxed-field font-serif text-letter" />
      </label>
      <LinesField form={made} name="topics" label={t("topicsOnePerLine")} />
      <fieldset>
        <legend className="mb-1">{t("fieldsBesides")}</legend>
        <ul className="flex flex-col gap-2">
          {fields.map((one, at) => (
            <li key={one.id} className="flex flex-wrap items-end gap-x-4 gap-y-1">
              <label className="flex w-52 flex-col gap-0.5">
                {t("whatItIsCalled")}
                <LineInput
                  field={register(`fields.${at}.label`)}
                  problem={errors.fields?.[at]?.label?.message}
                />
              </label>
              <Controller
                control={control}
                name={`fields.${at}.kind`}
                render={({ field }) => (
                  <>
                    <Select
                      label={t("kind")}
                      value={field.value}
                      options={formFieldKinds.map((kind) => [kind, kindWords(kind)] as const)}
                      onChange={field.onChange}
                      className="lined-field w-32"
                    />
                    {field.value === "choice" && (
                      <Controller
                        control={control}
                        name={`fields.${at}.options`}
                        render={({ field: options }) => (
                          <label className="flex grow flex-col gap-0.5">
                            {t("optionsWithCommas")}
                            <input
                              className="lined-field"
                              defaultValue={(options.value ?? []).join(", ")}
                              onChange={(event) =>
                                options.onChange(
                                  event.target.value
                                    .split(",")
                                    .map((option) => option.trim())
                                    .filter((option) => option !== ""),
                                )
                              }
                            />
                          </label>
                        )}
                      />
                    )}
                  </>
                )}
              />
              <label className="flex items-center gap-1.5 pb-1">
                <Controller
                  control={control}
                  name={`fields.${at}.required`}
                  render={({ field }) => (
                    <Checkbox checked={field.value ?? false} onChange={field.onChange} />
                  )}
                />
                {t("isNeeded")}
              </label>
              <button type="button" className="quiet-link mb-1" onClick={() => remove(at)}>
                {t("remove")}
              </button>
            </li>
          ))}
        </ul>
        <button
          type="button"
          className="quiet-link mt-1"
          onClick={() => append({ label: "", kind: "text", required: false, options: [] })}
        >
          {t("addAField")}
        </button>
        <FieldProblem words={errors.fields?.message ?? errors.fields?.root?.message} />
      </fieldset>
      <p className="flex flex-wrap gap-x-6 gap-y-1">
        <BoxField form={made} name="asksBooking" label={t("asksForABooking")} />
        <BoxField form={made} name="takesFiles" label={t("takesFiles")} />
        <BoxField form={made} name="isOn" label={t("isOn")} />
      </p>
      <label className="flex flex-col gap-0.5">
        {t("whatIsSaidAfterwards")}
        <textarea {...register("thanks")} rows={2} className="boxed-field font-serif text-letter" />
        <FieldProblem words={errors.thanks?.message} />
      </label>
      <label className="flex flex-col gap-0.5">
        {t("firstMailOrNone")}
        <textarea {...register("firstMail")} rows={4} className="boxed-field font-serif text-letter" />
        <FieldProblem words={errors.firstMail?.message} />
      </label>
      <FormProblem words={errors.root?.message ?? problem ?? undefined} />
      <p className="flex flex-wrap items-baseline gap-x-5">
        {(form === null || isDirty) && (
          <Button type="submit" disabled={isSubmitting}>
            {form === null ? t("addForm") : t("save")}
          </Button>
        )}
        {form !== null && (
          <>
            <a href={`/contact/${form.key}`} target="_blank" rel="noreferrer" className="quiet-link">
              {t("lookAtIt")}
            </a>
            <button
              type="button"
              className="quiet-link"
              onClick={() =>
                void send(`forms/${form.id}/remove`, {}, t("formIsRemoved", { form: form.title }))
              }
            >
              {t("remove")}
            </button>
          </>
        )}
      </p>
      {form !== null && <Html words={t("theFormOnAPage")} html={embedHtml(form, base)} />}
    </form>
  );
}

function kindWords(kind: (typeof formFieldKinds)[number]): string {
  switch (kind) {
    case "text":
      return t("aLine");
    case "long_text":
      return t("severalLines");
    case "number":
      return t("aNumber");
    case "date":
      return t("aDay");
    case "choice":
      return t("oneOfAList");
    case "yes_no":
      return t("yesOrNo");
  }
}
