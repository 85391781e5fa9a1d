import { data, Form, redirect, useNavigation, useSearchParams } from "react-router";
import { nameOfField, ownFields as of } from "#core/forms/contact";
import { openForm } from "#server/contact/forms";
import { openedAgain, openedAt, readFormData, submitForm, type FormProblems } from "#server/contact/submit";
import { entityManager } from "#server/db/orm";
import { settingsOf } from "#server/house/settings";
import { loaderResult } from "#server/web/results";
import { Button } from "../ui/button";
import { letterFontLink } from "../ui/fonts";
import type { Route } from "./+types/contact";
import { ContactField } from "./contact-field";
import { t } from "../words/public";

export const links = () => [letterFontLink];

export async function loader({ params }: Route.LoaderArgs) {
  const em = await entityManager();
  return loaderResult(async () => {
    const { title, intro, topics, fields, asksBooking, takesFiles, thanks } = await openForm(em, params.key);
    const { house } = await settingsOf(em);
    return {
      form: {
        ...{ title, intro, topics, asksBooking, takesFiles, thanks },
        fields,
      },
      house: house.name,
      opened: openedAt(new Date()),
    };
  });
}

export async function action({ request, params, context }: Route.ActionArgs) {
  const em = await entityManager();
  return loaderResult(async () => {
    const form = await openForm(em, params.key);
    const fields = await readFormData(request);
    const given = { address: context.address, fromElsewhere: false, now: new Date() };
    const done = await submitForm(em, form, fields, given);
    if (done.ok) return redirect(`/contact/${form.key}?sent=${encodeURIComponent(done.caseNumber)}`);
    const said = Object.fromEntries(
      [...fields].flatMap(([name, value]) => (typeof value === "string" ? [[name, value]] : [])),
    );
    return data({ problems: done.problems, said, opened: openedAgain(fields, new Date()) }, { status: 400 });
  });
}

/** The form by which people write to us: it works before any script has loaded, and without. */
export default function Contact({ loaderData, actionData }: Route.ComponentProps) {
  const { form, house, opened } = loaderData;
  const [params] = useSearchParams();
  const isBusy = useNavigation().state !== "idle";
  const sent = params.get("sent");
  const problems: FormProblems = actionData?.problems ?? {};
  const said: Partial<Record<string, string>> = actionData?.said ?? {};
  const field = (name: string) => ({ name, problem: problems[name], value: said[name] ?? "" });
  return (
    <main className="mx-auto min-h-dvh max-w-xl bg-sheet px-6 py-8">
      <title>{`${form.title} · ${house}`}</title>
      <p className="text-soft">{house}</p>
      <h1 className="inline-block border-b-4 border-accent text-xl font-bold">{form.title}</h1>
      {sent !== null ? (
        <div role="status" className="mt-5 font-serif text-letter">
          <p className="whitespace-pre-wrap">{form.thanks}</p>
          <p className="mt-3 text-soft">{t("yourNumberIs", { number: sent.slice(0, 40) })}</p>
        </div>
      ) : (
        <>
          {form.intro !== "" && (
            <p className="mt-4 font-serif text-letter whitespace-pre-wrap">{form.intro}</p>
          )}
          <Form method="post" encType="multipart/form-data" noValidate className="mt-6 flex flex-col gap-4">
            {problems.form !== undefined && (
              <p role="alert" className="border-l-[3px] border-stop bg-stop-wash px-3 py-2 text-stop">
                {problems.form}
              </p>
            )}
            <ContactField
              {...field(of.email)}
              label={t("yourAddress")}
              kind="email"
              required
              autoComplete="email"
            />
            <ContactField {...field(of.name)} label={t("yourName")} kind="text" autoComplete="name" />
            {form.asksBooking && (
              <ContactField
                {...field(of.booking)}
                label={t("bookingReference")}
                kind="text"
                autoComplete="off"
              />
            )}
            {form.topics.length > 0 && (
              <ContactField
                {...field(of.topic)}
                label={t("topic")}
                kind="choice"
                options={form.topics}
                required
              />
            )}
            <ContactField {...field(of.message)} label={t("message")} kind="long_text" required />
            {form.fields.map((one, at) => (
              <ContactField key={one.label} {...field(nameOfField(at))} {...one} />
            ))}
            {form.takesFiles && <ContactField {...field(of.files)} label={t("files")} kind="files" />}
            {/* Nobody sees it, nobody comes to it by Tab: what fills it in is a program. */}
            <div aria-hidden="true" className="absolute -left-[200vw]">
              <label>
                {t("leaveThisEmpty")}
                <input name={of.trap} tabIndex={-1} autoComplete="off" />
              </label>
            </div>
            <input type="hidden" name={of.opened} value={actionData?.opened ?? opened} />
            <Button type="submit" disabled={isBusy} className="self-start">
              {t("send")}
            </Button>
          </Form>
        </>
      )}
    </main>
  );
}
