import { useState } from "react";
import { Controller } from "react-hook-form";
import { Link } from "react-router";
import * as z from "zod/mini";
import { colleagueSchema } from "#core/forms/people";
import { idInPath } from "#server/edge";
import { readColleague, type Belongings, type Colleague } from "#server/staff/colleagues";
import { allTeams, possibleOwners } from "#server/replies/shelves";
import { filledFields } from "#server/fields/values";
import { includesRole } from "#server/people/viewer";
import { signedIn } from "#server/web/context";
import { loaderResult } from "#server/web/results";
import { useAct } from "../ui/act";
import { Button } from "../ui/button";
import { Confirm } from "../ui/confirm";
import { FormProblem, LineInput, taken, useFormOf } from "../ui/form";
import { ManyPicker } from "../ui/many-picker";
import { Select } from "../ui/select";
import { Time } from "../ui/time";
import { useToast } from "../ui/toast";
import { useSave } from "../ui/use-save";
import { ValuesList } from "../fields/values-list";
import { ChoiceField, teamOptions } from "./choice-field";
import type { Route } from "./+types/colleague";
import { LinkOnce } from "./link-once";
import { ROLES } from "./roles";
import { t } from "../words/setup";
import { Sentence } from "../words/sentence";

export async function loader(args: Route.LoaderArgs) {
  const { viewer, em, now } = await signedIn(args);
  return loaderResult(async () => {
    const id = idInPath.parse(args.params.id);
    return {
      colleague: await readColleague(em, viewer, id, now),
      teams: await allTeams(em),
      others: (await possibleOwners(em)).filter((one) => one.id !== id),
      isViewer: id === viewer.id,
      fields: await filledFields(em, "agent", id),
      mayFill: id === viewer.id || includesRole(viewer.role, "lead"),
    };
  });
}

type Data = Route.ComponentProps["loaderData"];

/** One colleague: what they may do and where, what letters print of them, their password, and sending them away. */
export default function ColleaguePage({ loaderData }: Route.ComponentProps) {
  const { colleague, others, isViewer } = loaderData;
  return (
    <div key={`${colleague.id} ${colleague.state}`}>
      <title>{t("colleaguePlainShelf", { colleague: colleague.name })}</title>
      <p className="text-sm">
        <Link to="/setup/people" className="quiet-link">
          {t("people")}
        </Link>
      </p>
      <h1 className="text-xl font-bold">{colleague.name}</h1>
      <p className="mt-1 text-soft">
        {colleague.state === "left"
          ? t("hasLeftTheirNameStaysOn")
          : colleague.state === "invited"
            ? t("invitedAndHasNotChosenA")
            : isViewer
              ? t("thisIsYou")
              : colleague.isLastLead
                ? t("theOnlyLeadThatStaysSo")
                : ""}
        {colleague.linkUntil !== null && (
          <>
            {" "}
            <Sentence
              of={t}
              name="theirLinkIsGoodUntil"
              parts={[<Time key="0" at={colleague.linkUntil} />]}
            />
          </>
        )}
      </p>
      <Details {...loaderData} />
      <ValuesList
        fields={loaderData.fields}
        id={colleague.id}
        title={colleague.name}
        mayFill={loaderData.mayFill}
      />
      {!isViewer && <Password colleague={colleague} />}
      {!isViewer && colleague.state !== "left" && <SendAway colleague={colleague} others={others} />}
    </div>
  );
}

const DETAILS = () =>
  [
    ["name", t("name")],
    ["firstName", t("firstName")],
    ["email", t("emailToSignInWith")],
    ["title", t("title")],
    ["department", t("department")],
    ["phone", t("telephone")],
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
      {DETAILS().map(([key, words]) => (
        <label key={key} className="flex flex-col gap-0.5 text-sm">
          {words}
          <LineInput field={form.register(key)} problem={errors[key]?.message} className="text-base" />
        </label>
      ))}
      <ChoiceField
        form={form}
        name="role"
        label={t("role")}
        options={ROLES()}
        disabled={colleague.isLastLead}
      />
      <ChoiceField form={form} name="team" label={t("team")} options={teamOptions(teams)} read={Number} />
      {teams.length > 1 && (
        <div className="flex flex-col gap-0.5 text-sm">
          {t("alsoIn")}
          <Controller
            control={form.control}
            name="furtherTeams"
            render={({ field }) => (
              <ManyPicker
                label={t("alsoIn")}
                value={field.value.filter((id) => id !== form.watch("team")).map(nameOf)}
                options={teams.filter((one) => one.id !== form.watch("team")).map((one) => one.name)}
                onChange={(names) =>
                  field.onChange(teams.filter((one) => names.includes(one.name)).map((one) => one.id))
                }
                placeholder={t("noOtherTeam")}
                className="lined-field text-base"
              />
            )}
          />
        </div>
      )}
      <div className="sm:col-span-2">
        <FormProblem words={errors.root?.message} />
        <Button type="submit" disabled={isSubmitting}>
          {t("save")}
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
  const words = isHere ? t("resetPassword") : colleague.state === "left" ? t("inviteBack") : t("inviteAgain");
  return (
    <section aria-label={t("password")} className="mt-9 max-w-4xl border-t border-line pt-4">
      {isHere ? (
        <Confirm
          title={t("resetThePasswordOfColleague", { colleague: colleague.name })}
          words={t("theirPresentOneStopsWorkingAt")}
          yes={t("resetPassword")}
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
    cases > 0 ? t("countOpenCases", { count: cases }) : "",
    drafts > 0 ? t("countDrafts", { count: drafts }) : "",
    own > 0 ? t("countRepliesOfTheirOwn", { count: own }) : "",
    owned > 0 ? t("countSharedRepliesToReview", { count: owned }) : "",
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
    const outcome = await ask(`/setup/people/${colleague.id}/send-away`, { successor: Number(successor) });
    setProblem(outcome.ok ? undefined : outcome.problem);
    if (outcome.ok) toast({ words: t("colleagueCanNoLongerSignIn", { colleague: colleague.name }) });
  };
  return (
    <section aria-label={t("leaving")} className="mt-9 max-w-4xl border-t border-line pt-4">
      <h2 className="font-bold">{t("leaving")}</h2>
      <p className="mt-1 text-soft">
        {t("valueTheirNameStaysOnWhat", {
          value:
            behind === null
              ? t("firstnameHasNoOpenCasesDrafts", { firstName: colleague.firstName })
              : t("toHandOverBehind", { behind }),
        })}
      </p>
      <div className="mt-2 flex flex-wrap items-end gap-x-6 gap-y-2">
        <label className="flex flex-col gap-0.5 text-sm">
          {t("everythingGoesTo")}
          <Select
            className="lined-field w-64 text-base"
            value={successor}
            placeholder={t("chooseAColleague")}
            options={others.map((one) => [String(one.id), one.name] as const)}
            onChange={setSuccessor}
          />
        </label>
        {heir && (
          <Confirm
            title={t("colleagueLeaves", { colleague: colleague.name })}
            words={behind === null ? t("leavesWithNothing") : t("leavesToHeir", { heir: heir.name, behind })}
            yes={t("removeFromTheHouse")}
            onYes={() => void go()}
          >
            <button type="button" className="quiet-link">
              {t("removeFirstnameFromTheHouse", { firstName: colleague.firstName })}
            </button>
          </Confirm>
        )}
      </div>
      <FormProblem words={problem} />
    </section>
  );
}
