import { counted } from "#core/text/counted";
import { teamSchema } from "#core/forms/people";
import { requireRole } from "#server/people/viewer";
import { listTeams, type TeamRow } from "#server/staff/teams";
import { signedIn } from "#server/web/context";
import { loaderResult } from "#server/web/results";
import { Button } from "../ui/button";
import { FormProblem, LineInput, taken, useFormOf } from "../ui/form";
import { useSave } from "../ui/use-save";
import type { Route } from "./+types/teams";

export async function loader(args: Route.LoaderArgs) {
  const { viewer, em } = await signedIn(args);
  return loaderResult(async () => {
    requireRole(viewer, "lead");
    return { teams: await listTeams(em) };
  });
}

/** Teams: what they are called, where their mail comes in, and how soon they answer. */
export default function Teams({ loaderData }: Route.ComponentProps) {
  const { teams } = loaderData;
  return (
    <>
      <title>Teams · Plain Shelf</title>
      <h1 className="text-xl font-bold">Teams</h1>
      <p className="mt-1 text-soft">
        Mail to a team’s address becomes its cases, and its answers come from there.
      </p>
      <ul className="mt-4 flex max-w-4xl flex-col border-t border-line">
        {teams.map((team) => (
          <li key={team.id} className="border-b border-line py-3">
            <TeamForm team={team} />
          </li>
        ))}
      </ul>
      <h2 className="mt-8 font-bold">A new team</h2>
      <div className="mt-2 max-w-4xl">
        <TeamForm team={null} />
      </div>
    </>
  );
}

function TeamForm({ team }: { team: TeamRow | null }) {
  const { act, send, problem } = useSave("/setup");
  const form = useFormOf(teamSchema, {
    name: team?.name ?? "",
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
      aria-label={team?.name ?? "A new team"}
      className="flex flex-wrap items-end gap-x-6 gap-y-2"
      onSubmit={(event) => void save(event)}
    >
      <label className="flex w-52 flex-col gap-0.5 text-sm">
        Name
        <LineInput field={form.register("name")} problem={errors.name?.message} className="text-base" />
      </label>
      <label className="flex w-64 flex-col gap-0.5 text-sm">
        Address
        <LineInput
          type="email"
          field={form.register("mailbox")}
          problem={errors.mailbox?.message}
          className="text-base"
        />
      </label>
      <label className="flex w-32 flex-col gap-0.5 text-sm">
        Answers within, in minutes
        <LineInput
          inputMode="numeric"
          field={form.register("answerWithin", { valueAsNumber: true })}
          problem={errors.answerWithin?.message}
          className="text-base"
        />
      </label>
      {team === null ? (
        <Button type="submit" disabled={isSubmitting}>
          Add team
        </Button>
      ) : isDirty ? (
        <Button type="submit" disabled={isSubmitting}>
          Save
        </Button>
      ) : (
        <span className="pb-1 text-sm text-soft">
          {team.people === 0 && team.cases === 0 ? (
            <button
              type="button"
              className="quiet-link"
              onClick={() => void send(`teams/${team.id}/remove`, {}, `${team.name} is removed.`)}
            >
              Remove
            </button>
          ) : (
            `${counted(team.people, "person", "people")}, ${counted(team.cases, "case", "cases")}`
          )}
        </span>
      )}
      <FormProblem words={errors.root?.message ?? problem ?? undefined} />
    </form>
  );
}
