import { Controller } from "react-hook-form";
import { DurationField } from "./duration-field";
import { teamSchema } from "#core/forms/people";
import { requireRole } from "#server/people/viewer";
import { listTeams, type TeamRow } from "#server/staff/teams";
import { signedIn } from "#server/web/context";
import { loaderResult } from "#server/web/results";
import { settingsOf } from "#server/house/settings";
import { Disclosure } from "../ui/disclosure";
import { otherLanguages, spoken } from "./language-tabs";
import { Button } from "../ui/button";
import { FieldProblem, FormProblem, LineInput, taken, useFormOf } from "../ui/form";
import { useSave } from "../ui/use-save";
import type { Route } from "./+types/teams";
import { t } from "../words/setup";

export async function loader(args: Route.LoaderArgs) {
  const { viewer, em } = await signedIn(args);
  return loaderResult(async () => {
    requireRole(viewer, "lead");
    return { teams: await listTeams(em), languages: (await settingsOf(em)).languages };
  });
}

/** Teams: what they are called, where their mail comes in, and how soon they answer. */
export default function Teams({ loaderData }: Route.ComponentProps) {
  const { teams, languages } = loaderData;
  return (
    <>
      <title>{t("teamsPlainShelf")}</title>
      <h1 className="text-xl font-bold">{t("teams")}</h1>
      <p className="mt-1 text-soft">{t("mailToATeamsAddressBecomes")}</p>
      <ul className="mt-4 flex max-w-4xl flex-col border-t border-line">
        {teams.map((team) => (
          <li key={team.id} className="border-b border-line py-3">
            <TeamForm team={team} languages={languages} />
          </li>
        ))}
      </ul>
      <h2 className="mt-8 font-bold">{t("aNewTeam")}</h2>
      <div className="mt-2 max-w-4xl">
        <TeamForm team={null} languages={languages} />
      </div>
    </>
  );
}

function TeamForm({ team, languages }: { team: TeamRow | null; languages: string[] }) {
  const { act, send, problem } = useSave("/setup");
  const first = team?.language ?? languages[0] ?? "en";
  const others = otherLanguages(first, languages, team?.names ?? {});
  const form = useFormOf(teamSchema, {
    name: team?.name ?? "",
    names: Object.fromEntries(others.map((language) => [language, team?.names[language] ?? ""])),
    mailbox: team?.mailbox ?? "",
    answerWithin: team?.answerWithin ?? 24 * 60,
  });
  const { errors, isDirty, isSubmitting } = form.formState;
  const save = form.handleSubmit(async (input) => {
    if (!taken(form, await act("save-team", { id: team?.id ?? null, ...input }))) return;
    form.reset(team ? form.getValues() : undefined);
  });
  return (
    <form
      noValidate
      aria-label={team?.name ?? t("aNewTeam")}
      className="flex flex-wrap items-end gap-x-6 gap-y-2"
      onSubmit={(event) => void save(event)}
    >
      <label className="flex w-52 flex-col gap-0.5 text-sm">
        {t("name")}
        <LineInput field={form.register("name")} problem={errors.name?.message} className="text-base" />
      </label>
      <label className="flex w-64 flex-col gap-0.5 text-sm">
        {t("address")}
        <LineInput
          type="email"
          field={form.register("mailbox")}
          problem={errors.mailbox?.message}
          className="text-base"
        />
      </label>
      <span className="flex flex-col gap-0.5 text-sm">
        {t("answersWithin")}
        <Controller
          control={form.control}
          name="answerWithin"
          render={({ field }) => (
            <DurationField
              label={t("answersWithin")}
              value={field.value}
              onChange={field.onChange}
              invalid={errors.answerWithin !== undefined}
            />
          )}
        />
        <FieldProblem words={errors.answerWithin?.message} />
      </span>
      {others.length > 0 && (
        <Disclosure words={t("itsNameInOtherLanguages")} className="order-last w-full text-sm">
          <span className="mt-1 flex flex-wrap gap-x-6 gap-y-2">
            {others.map((language) => (
              <label key={language} className="flex w-52 flex-col gap-0.5">
                {spoken(language)}
                <LineInput
                  field={form.register(`names.${language}`)}
                  problem={errors.names?.[language]?.message}
                  lang={language}
                  className="text-base"
                />
              </label>
            ))}
          </span>
        </Disclosure>
      )}
      {team === null ? (
        <Button type="submit" disabled={isSubmitting}>
          {t("addTeam")}
        </Button>
      ) : isDirty ? (
        <Button type="submit" disabled={isSubmitting}>
          {t("save")}
        </Button>
      ) : (
        <span className="pb-1 text-sm text-soft">
          {team.people === 0 && team.cases === 0 ? (
            <button
              type="button"
              className="quiet-link"
              onClick={() =>
                void send(`teams/${team.id}/remove`, {}, t("teamIsRemoved", { team: team.name }))
              }
            >
              {t("remove")}
            </button>
          ) : (
            `${t("countPeople", { count: team.people })}, ${t("countCases", { count: team.cases })}`
          )}
        </span>
      )}
      <FormProblem words={errors.root?.message ?? problem ?? undefined} />
    </form>
  );
}
