import { useState } from "react";
import { Link } from "react-router";
import * as z from "zod/mini";
import { invitationSchema } from "#core/forms/people";
import { listColleagues, type ColleagueRow } from "#server/staff/colleagues";
import { allTeams } from "#server/replies/shelves";
import { signedIn } from "#server/web/context";
import { loaderResult } from "#server/web/results";
import { roleName } from "#core/words/named";
import { useAct } from "../ui/act";
import { Button } from "../ui/button";
import { FormProblem, LineInput, taken, useFormOf } from "../ui/form";
import { Time } from "../ui/time";
import { ChoiceField, teamOptions } from "./choice-field";
import type { Route } from "./+types/people";
import { LinkOnce } from "./link-once";
import { ROLES } from "./roles";
import { t } from "../words/setup";
import { Sentence } from "../words/sentence";

export async function loader(args: Route.LoaderArgs) {
  const { viewer, em } = await signedIn(args);
  return loaderResult(async () => ({
    people: await listColleagues(em, viewer),
    teams: await allTeams(em),
    ownTeam: viewer.teamId,
  }));
}

/** Everyone who answers, and the way to invite another. */
export default function People({ loaderData }: Route.ComponentProps) {
  const { people, teams, ownTeam } = loaderData;
  const here = people.filter((person) => person.state !== "left");
  const left = people.filter((person) => person.state === "left");
  return (
    <>
      <title>{t("peoplePlainShelf")}</title>
      <h1 className="text-xl font-bold">{t("people")}</h1>
      <p className="mt-1 text-soft">{t("agentsAnswerCuratorsKeepTheShelves")}</p>
      <Listed people={here} label={t("peopleHere")} />
      <Invite teams={teams} ownTeam={ownTeam} />
      {left.length > 0 && (
        <>
          <h2 className="mt-9 font-bold">{t("left")}</h2>
          <Listed people={left} label={t("peopleWhoLeft")} />
        </>
      )}
    </>
  );
}

function Listed({ people, label }: { people: ColleagueRow[]; label: string }) {
  return (
    <ul aria-label={label} className="mt-4 max-w-4xl border-t border-line">
      {people.map((person) => (
        <li
          key={person.id}
          className="grid grid-cols-[minmax(0,1.4fr)_5.5rem_minmax(0,1fr)_minmax(0,1.2fr)] items-baseline gap-x-5 border-b border-line py-2 max-md:grid-cols-1"
        >
          <span className="min-w-0">
            <Link to={`/setup/people/${person.id}`} className="font-semibold hover:underline">
              {person.name}
            </Link>
            <span className="block truncate text-sm text-soft">{person.email}</span>
          </span>
          <span>{roleName(person.role)}</span>
          <span className="min-w-0 text-soft">{[person.team, ...person.furtherTeams].join(", ")}</span>
          <span className="min-w-0 text-sm text-soft">
            {person.state === "invited" ? (
              <span className="text-look">{t("invitedHasNotComeYet")}</span>
            ) : person.seen === null ? (
              person.state === "left" ? (
                ""
              ) : (
                t("notSignedIn")
              )
            ) : (
              <Sentence of={t} name="lastSeen" parts={[<Time key="0" at={person.seen} />]} />
            )}
            {person.lacks.length > 0 && (
              <span className="block text-look">
                {t("lettersPrintTheirLacksMissing", { lacks: person.lacks.join(", ") })}
              </span>
            )}
          </span>
        </li>
      ))}
    </ul>
  );
}

const invited = z.object({ id: z.number(), link: z.object({ url: z.string(), expires: z.string() }) });

function Invite({ teams, ownTeam }: { teams: { id: number; name: string }[]; ownTeam: number }) {
  const ask = useAct();
  const [made, setMade] = useState<{ link: { url: string; expires: string }; email: string } | null>(null);
  const form = useFormOf(invitationSchema, {
    name: "",
    firstName: "",
    email: "",
    role: "agent",
    team: ownTeam,
  });
  const { errors, isSubmitting } = form.formState;
  const send = form.handleSubmit(async (input) => {
    const outcome = await ask("/setup/invite", input, invited);
    if (!taken(form, outcome) || !outcome.ok) return;
    setMade({ link: outcome.data.link, email: input.email });
    form.reset();
  });
  return (
    <section aria-label={t("inviteAColleague")} className="mt-8 max-w-4xl">
      <h2 className="font-bold">{t("inviteAColleague")}</h2>
      <form
        noValidate
        className="mt-2 grid grid-cols-1 items-start gap-x-6 gap-y-3 sm:grid-cols-2 lg:grid-cols-3"
        onSubmit={(event) => void send(event)}
      >
        <label className="flex flex-col gap-0.5 text-sm">
          {t("name")}
          <LineInput
            field={form.register("name", {
              onBlur: () => {
                // The first of the names, mostly; it can be written over.
                const [first = ""] = form.getValues("name").trim().split(/\s+/);
                if (form.getValues("firstName") === "" && first !== "") form.setValue("firstName", first);
              },
            })}
            problem={errors.name?.message}
            className="text-base"
          />
        </label>
        <label className="flex flex-col gap-0.5 text-sm">
          {t("firstName")}
          <LineInput
            field={form.register("firstName")}
            problem={errors.firstName?.message}
            className="text-base"
          />
        </label>
        <label className="flex flex-col gap-0.5 text-sm">
          {t("email")}
          <LineInput
            type="email"
            field={form.register("email")}
            problem={errors.email?.message}
            className="text-base"
          />
        </label>
        <ChoiceField form={form} name="role" label={t("role")} options={ROLES()} />
        <ChoiceField form={form} name="team" label={t("team")} options={teamOptions(teams)} read={Number} />
        <span className="self-end">
          <Button type="submit" disabled={isSubmitting}>
            {t("invite")}
          </Button>
        </span>
      </form>
      <FormProblem words={errors.root?.message} />
      {made && <LinkOnce key={made.link.url} {...made} />}
    </section>
  );
}
