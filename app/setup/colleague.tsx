import { useState } from "react";
import { Controller } from "react-hook-form";
import { Link } from "react-router";
import * as z from "zod/mini";
import { colleagueSchema } from "#core/forms/people";
import { counted } from "#core/text/counted";
import { idInPath } from "#server/edge";
import { readColleague, type Belongings, type Colleague } from "#server/staff/colleagues";
import { allTeams, possibleOwners } from "#server/replies/shelves";
import { signedIn } from "#server/web/context";
import { loaderResult } from "#server/web/results";
import { nothing, useAct } from "../ui/act";
import { Button } from "../ui/button";
import { Confirm } from "../ui/confirm";
import { FormProblem, LineInput, taken, useFormOf } from "../ui/form";
import { ManyPicker } from "../ui/many-picker";
import { Select } from "../ui/select";
import { Time } from "../ui/time";
import { useToast } from "../ui/toast";
import { useSave } from "../ui/use-save";
import type { Route } from "./+types/colleague";
import { LinkOnce } from "./link-once";
import { ROLES } from "./roles";

export async function loader(args: Route.LoaderArgs) {
  const { viewer, em, now } = await signedIn(args);
  return loaderResult(async () => {
    const id = idInPath.parse(args.params.id);
    return {
      colleague: await readColleague(em, viewer, id, now),
      teams: await allTeams(em),
      others: (await possibleOwners(em)).filter((one) => one.id !== id),
      isViewer: id === viewer.id,
    };
  });
}

type Data = Route.ComponentProps["loaderData"];

/** One colleague: what they may do and where, what letters print of them, their password, and sending them away. */
export default function ColleaguePage({ loaderData }: Route.ComponentProps) {
  const { colleague, others, isViewer } = loaderData;
  return (
    <div key={`${colleague.id} ${colleague.state}`}>
      <title>{`${colleague.name} · Plain Shelf`}</title>
      <p className="text-sm">
        <Link to="/setup/people" className="quiet-link">
          People
        </Link>
      </p>
      <h1 className="text-xl font-bold">{colleague.name}</h1>
      <p className="mt-1 text-soft">
        {colleague.state === "left"
          ? "Has left; their name stays on what they wrote."
          : colleague.state === "invited"
            ? "Invited, and has not chosen a password yet."
            : isViewer
              ? "This is you."
              : colleague.isLastLead
                ? "The only lead: that stays so until there is another."
                : ""}
        {colleague.linkUntil !== null && (
          <>
            {" "}
            Their link is good until <Time at={colleague.linkUntil} />.
          </>
        )}
      </p>
      <Details {...loaderData} />
      {!isViewer && <Password colleague={colleague} />}
      {!isViewer && colleague.state !== "left" && <SendAway colleague={colleague} others={others} />}
    </div>
  );
}

const DETAILS = [
  ["name", "Name"],
  ["firstName", "First name"],
  ["email", "Email, to sign in with"],
  ["title", "Title"],
  ["department", "Department"],
  ["phone", "Telephone"],
] as const;

function Details({ colleague, teams }: Pick<Data, "colleague" | "teams">) {
  const { act } = useSave(`/setup/people/${colleague.id}`);
  const { name, firstName, email, role, team, furtherTeams } = colleague;
  const form = useFormOf(colleagueSchema, {
    ...{ name, firstName, email, role, team, furtherTeams },
    title: colleague.title ?? "",
    department: colleague.department ?? "",
    phone: colleague.phone ?? "",
  });
  const { errors, isSubmitting } = form.formState;
  const save = form.handleSubmit(async (input) => {
    if (taken(form, await act("save", input))) form.reset(form.getValues());
  });
  const nameOf = (id: number) => teams.find((one) => one.id === id)?.name ?? "";
  return (
    <form
      noValidate
      className="mt-5 grid max-w-4xl grid-cols-1 items-start gap-x-8 gap-y-3.5 sm:grid-cols-2"
      onSubmit={(event) => void save(event)}
    >
      {DETAILS.map(([key, words]) => (
        <label key={key} className="flex flex-col gap-0.5 text-sm">
          {words}
          <LineInput field={form.register(key)} problem={errors[key]?.message} className="text-base" />
        </label>
      ))}
      <label className="flex flex-col gap-0.5 text-sm">
        Role
        <Controller
          control={form.control}
          name="role"
          render={({ field }) => (
            <Select
              className="lined-field text-base"
              value={field.value}
              options={ROLES}
              onChange={field.onChange}
              disabled={colleague.isLastLead}
            />
          )}
        />
        <FormProblem words={errors.role?.message} />
      </label>
      <label className="flex flex-col gap-0.5 text-sm">
        Team
        <Controller
          control={form.control}
          name="team"
          render={({ field }) => (
            <Select
              className="lined-field text-base"
              value={String(field.value)}
              options={teams.map((one) => [String(one.id), one.name] as const)}
              onChange={(id) => field.onChange(Number(id))}
            />
          )}
        />
      </label>
      {teams.length > 1 && (
        <div className="flex flex-col gap-0.5 text-sm">
          Also in
          <Controller
            control={form.control}
            name="furtherTeams"
            render={({ field }) => (
              <ManyPicker
                label="Also in"
                value={field.value.filter((id) => id !== form.watch("team")).map(nameOf)}
                options={teams.filter((one) => one.id !== form.watch("team")).map((one) => one.name)}
                onChange={(names) =>
                  field.onChange(teams.filter((one) => names.includes(one.name)).map((one) => one.id))
                }
                placeholder="no other team"
                className="lined-field text-base"
              />
            )}
          />
        </div>
      )}
      <div className="sm:col-span-2">
        <FormProblem words={errors.root?.message} />
        <Button type="submit" disabled={isSubmitting}>
          Save
        </Button>
      </div>
    </form>
  );
}

const linked = z.object({ link: z.object({ url: z.string(), expires: z.string() }) });

function Password({ colleague }: { colleague: Colleague }) {
  const ask = useAct();
  const [link, setLink] = useState<{ url: string; expires: string } | null>(null);
  const [problem, setProblem] = useState<string>();
  const reset = async () => {
    const outcome = await ask(`/setup/people/${colleague.id}/reset-password`, {}, linked);
    setProblem(outcome.ok ? undefined : outcome.problem);
    if (outcome.ok) setLink(outcome.data.link);
  };
  const isHere = colleague.state === "here";
  const words = isHere ? "Reset password" : colleague.state === "left" ? "Invite back" : "Invite again";
  return (
    <section aria-label="Password" className="mt-9 max-w-4xl border-t border-line pt-4">
      {isHere ? (
        <Confirm
          title={`Reset the password of ${colleague.name}?`}
          words="Their present one stops working at once and they are signed out everywhere. They get a link to choose another."
          yes="Reset password"
          onYes={() => void reset()}
        >
          <button type="button" className="quiet-link">
            {words}
          </button>
        </Confirm>
      ) : (
        <Button look="quiet" onClick={() => void reset()}>
          {words}
        </Button>
      )}
      <FormProblem words={problem} />
      {link && <LinkOnce key={link.url} link={link} email={colleague.email} />}
    </section>
  );
}

/** What somebody leaves behind, in words; null for nothing. */
function leftBehind({ cases, drafts, own, owned }: Belongings): string | null {
  const parts = [
    cases > 0 ? counted(cases, "open case", "open cases") : "",
    drafts > 0 ? counted(drafts, "draft", "drafts") : "",
    own > 0 ? counted(own, "reply of their own", "replies of their own") : "",
    owned > 0 ? counted(owned, "shared reply to review", "shared replies to review") : "",
  ].filter((part) => part !== "");
  return parts.length === 0 ? null : new Intl.ListFormat("en").format(parts);
}

function SendAway({ colleague, others }: Pick<Data, "colleague" | "others">) {
  const ask = useAct();
  const toast = useToast();
  const [successor, setSuccessor] = useState("");
  const [problem, setProblem] = useState<string>();
  const behind = leftBehind(colleague.belongings);
  const heir = others.find((one) => String(one.id) === successor);
  const go = async () => {
    const outcome = await ask(
      `/setup/people/${colleague.id}/send-away`,
      { successor: Number(successor) },
      nothing,
    );
    setProblem(outcome.ok ? undefined : outcome.problem);
    if (outcome.ok) toast({ words: `${colleague.name} can no longer sign in.` });
  };
  return (
    <section aria-label="Leaving" className="mt-9 max-w-4xl border-t border-line pt-4">
      <h2 className="font-bold">Leaving</h2>
      <p className="mt-1 text-soft">
        {behind === null
          ? `${colleague.firstName} has no open cases, drafts or replies to hand over.`
          : `To hand over: ${behind}.`}{" "}
        Their name stays on what they wrote.
      </p>
      <div className="mt-2 flex flex-wrap items-end gap-x-6 gap-y-2">
        <label className="flex flex-col gap-0.5 text-sm">
          Everything goes to
          <Select
            className="lined-field w-64 text-base"
            value={successor}
            placeholder="choose a colleague"
            options={others.map((one) => [String(one.id), one.name] as const)}
            onChange={setSuccessor}
          />
        </label>
        {heir && (
          <Confirm
            title={`${colleague.name} leaves?`}
            words={`They are signed out and can no longer sign in.${behind === null ? "" : ` ${heir.name} gets ${behind}.`} You can invite them back later.`}
            yes="Remove from the house"
            onYes={() => void go()}
          >
            <button type="button" className="quiet-link">
              Remove {colleague.firstName} from the house…
            </button>
          </Confirm>
        )}
      </div>
      <FormProblem words={problem} />
    </section>
  );
}
