import type { ReactNode } from "react";
import { Form, Link } from "react-router";
import { changedPasswordSchema, ownDetailsSchema } from "#core/forms/people";
import { readOwn } from "#server/people/account";
import { sessionsOf, type SessionRow } from "#server/people/sessions";
import { signedIn } from "#server/web/context";
import { roleName } from "#core/words/named";
import { Button } from "../ui/button";
import { FormProblem, LineInput, taken, useFormOf } from "../ui/form";
import { Time } from "../ui/time";
import { useSave } from "../ui/use-save";
import { ZoneField } from "../ui/zone-field";
import type { Route } from "./+types/account";
import { t } from "../words/account";
import { Sentence } from "../words/sentence";

export async function loader(args: Route.LoaderArgs) {
  const { viewer, em, now } = await signedIn(args);
  return {
    own: await readOwn(em, viewer),
    team: viewer.teamName,
    role: viewer.role,
    sessions: await sessionsOf(em, viewer, now),
    session: args.context.sessionId,
  };
}

/** One’s own details, password, and where one is signed in. */
export default function Account({ loaderData }: Route.ComponentProps) {
  const { own, team, role, sessions, session } = loaderData;
  return (
    <main className="mx-5 mb-5 grow bg-sheet px-8 pt-6 pb-10">
      <title>{t("yourAccountPlainShelf")}</title>
      <h1 className="text-xl font-bold">{own.name}</h1>
      <p className="mt-1 text-soft">
        {t("emailRoleInTeam", { email: own.email, role: roleName(role), team })}
      </p>
      <div className="mt-6 grid max-w-5xl gap-x-12 gap-y-9 lg:grid-cols-2">
        <Details own={own} />
        <div className="flex flex-col gap-9">
          <Password email={own.email} />
          <Sessions sessions={sessions} session={session} />
        </div>
      </div>
    </main>
  );
}

function Section({ title, words, children }: { title: string; words: ReactNode; children: ReactNode }) {
  return (
    <section aria-label={title}>
      <h2 className="border-b border-line pb-1 font-bold">{title}</h2>
      <p className="mt-2 text-sm text-soft">{words}</p>
      {children}
    </section>
  );
}

const DETAILS = () =>
  [
    ["name", t("name")],
    ["firstName", t("firstName")],
    ["title", t("title")],
    ["department", t("department")],
    ["phone", t("telephone")],
  ] as const;

function Details({ own }: { own: Route.ComponentProps["loaderData"]["own"] }) {
  const { act } = useSave("/account");
  const { email: _email, ...values } = own;
  const form = useFormOf(ownDetailsSchema, {
    ...values,
    title: own.title ?? "",
    department: own.department ?? "",
    phone: own.phone ?? "",
  });
  const { errors, isSubmitting } = form.formState;
  const save = form.handleSubmit(async (details) => {
    if (taken(form, await act("details", details))) form.reset(form.getValues());
  });
  return (
    <Section
      title={t("details")}
      words={
        <Sentence
          of={t}
          name="lettersPrintTheseAndYourSignature"
          parts={[<Link key="0" to="/setup/signatures" className="quiet-link" />]}
        />
      }
    >
      <form noValidate className="mt-3 flex flex-col gap-3.5" onSubmit={(event) => void save(event)}>
        {DETAILS().map(([key, words]) => (
          <label key={key} className="flex flex-col gap-0.5 text-sm">
            {words}
            <LineInput field={form.register(key)} problem={errors[key]?.message} className="text-base" />
          </label>
        ))}
        <ZoneField control={form.control} name="timeZone" />
        <FormProblem words={errors.root?.message} />
        <Button type="submit" disabled={isSubmitting} className="self-start">
          {t("save")}
        </Button>
      </form>
    </Section>
  );
}

function Password({ email }: { email: string }) {
  const { act } = useSave("/account");
  const form = useFormOf(changedPasswordSchema, { old: "", password: "" });
  const { errors, isSubmitting } = form.formState;
  const change = form.handleSubmit(async (input) => {
    if (taken(form, await act("password", input, t("yourPasswordIsChanged")))) form.reset();
  });
  return (
    <Section title={t("password")} words={t("changingItSignsYouOutEverywhere")}>
      <form noValidate className="mt-3 flex flex-col gap-3.5" onSubmit={(event) => void change(event)}>
        <input type="hidden" autoComplete="username" value={email} readOnly />
        <label className="flex flex-col gap-0.5 text-sm">
          {t("presentPassword")}
          <LineInput
            type="password"
            autoComplete="current-password"
            field={form.register("old")}
            problem={errors.old?.message}
            className="text-base"
          />
        </label>
        <label className="flex flex-col gap-0.5 text-sm">
          {t("newPassword")}
          <LineInput
            type="password"
            autoComplete="new-password"
            field={form.register("password")}
            problem={errors.password?.message}
            className="text-base"
          />
        </label>
        <FormProblem words={errors.root?.message} />
        <Button type="submit" disabled={isSubmitting} className="self-start">
          {t("changePassword")}
        </Button>
      </form>
    </Section>
  );
}

function Sessions({ sessions, session: own }: { sessions: SessionRow[]; session: number | null }) {
  return (
    <Section title={t("whereYouAreSignedIn")} words={t("endWhatYouDoNotKnow")}>
      <ul className="mt-1">
        {sessions.map((session) => (
          <li
            key={session.id}
            className="flex flex-wrap items-baseline gap-x-5 gap-y-1 border-b border-line py-2.5"
          >
            <span className="min-w-0 grow">
              <strong className="font-semibold">{browserName(session.browser)}</strong>
              {session.id === own && ` ${t("thisOne")}`}
              <span className="block text-sm text-soft [overflow-wrap:anywhere]">
                <Sentence
                  of={t}
                  name="addressSinceLastUsed"
                  values={{ address: session.address ?? t("fromAnUnknownAddress") }}
                  parts={[<Time key="0" at={session.began} />, <Time key="1" at={session.seen} />]}
                />
              </span>
            </span>
            {session.id !== own && (
              <Form method="post" action="/account/sessions">
                <input type="hidden" name="id" value={session.id} />
                <button type="submit" className="quiet-link">
                  {t("endIt")}
                </button>
              </Form>
            )}
          </li>
        ))}
      </ul>
      {sessions.length > 1 && (
        <Form method="post" action="/account/sessions" className="mt-3">
          <input type="hidden" name="others" value="yes" />
          <button type="submit" className="quiet-link">
            {t("endAllOthers")}
          </button>
        </Form>
      )}
    </Section>
  );
}

/** A browser as people call it, from how it names itself. */
function browserName(agent: string | null): string {
  if (agent === null) return t("aBrowserThatDoesNotSay");
  const system = /Windows|Mac OS X|Android|iPhone|iPad|Linux/.exec(agent)?.[0]?.replace("Mac OS X", "macOS");
  const program = /Edg|Firefox|Chrome|Safari/.exec(agent)?.[0]?.replace("Edg", "Edge");
  if (!program) return agent.slice(0, 60);
  return system ? t("programOnSystem", { program, system }) : program;
}
