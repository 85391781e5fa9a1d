import { Link } from "react-router";
import { numberSchema } from "#core/forms/people";
import { shortMessageWays, type NumberRow } from "#server/staff/numbers";
import { listTeams } from "#server/staff/teams";
import { signedIn } from "#server/web/context";
import { loaderResult } from "#server/web/results";
import { Button } from "../ui/button";
import { FormProblem, LineInput, taken, useFormOf } from "../ui/form";
import { useSave } from "../ui/use-save";
import { ChoiceField, teamOptions } from "./choice-field";
import type { Route } from "./+types/numbers";
import { t } from "../words/setup";
import { Sentence } from "../words/sentence";

export async function loader(args: Route.LoaderArgs) {
  const { viewer, em } = await signedIn(args);
  return loaderResult(async () => ({
    ...(await shortMessageWays(em, viewer)),
    teams: (await listTeams(em)).map(({ id, name }) => ({ id, name })),
  }));
}

/** Numbers that short messages come to and go from, and the gateway that carries them. */
export default function Numbers({ loaderData }: Route.ComponentProps) {
  const { numbers, gateway, teams } = loaderData;
  return (
    <>
      <title>{t("shortMessagesPlainShelf")}</title>
      <h1 className="text-xl font-bold">{t("shortMessages")}</h1>
      <p className="mt-1 max-w-3xl text-soft">{t("whatComesToANumberBecomes")}</p>
      <ul className="mt-4 flex max-w-4xl flex-col border-t border-line">
        {numbers.map((number) => (
          <li key={number.id} className="border-b border-line py-3">
            <NumberForm number={number} teams={teams} />
          </li>
        ))}
      </ul>
      <h2 className="mt-8 font-bold">{t("anotherNumber")}</h2>
      <div className="mt-2 max-w-4xl">
        <NumberForm key={numbers.length} number={null} teams={teams} />
      </div>
      <section aria-label={t("theGateway")} className="mt-8 max-w-3xl">
        <h2 className="border-b border-line pb-1 font-bold">{t("theGateway")}</h2>
        <p className="mt-2">
          {gateway === null ? (
            t("noGatewayIsSetShort")
          ) : (
            <Sentence
              of={t}
              name={gateway.simulated ? "shortMessagesGoToTheOutside" : "shortMessagesGoToTheGateway"}
              values={{ host: gateway.host }}
              parts={[<code key="0" className="font-mono text-sm" />]}
            />
          )}{" "}
          <span className="text-soft">
            <Sentence
              of={t}
              name="whoeverRunsTheProgramSetsIt"
              values={{ setting: "SMS_GATEWAY_URL" }}
              parts={[<code key="0" className="font-mono text-sm" />]}
            />
          </span>
        </p>
        {gateway?.simulated && (
          <p className="mt-2">
            <Link to="/outside" className="quiet-link">
              {t("writeOneFromAPhoneOutside")}
            </Link>
          </p>
        )}
      </section>
    </>
  );
}

function NumberForm({ number, teams }: { number: NumberRow | null; teams: { id: number; name: string }[] }) {
  const { act, send, problem } = useSave("/setup");
  const form = useFormOf(numberSchema, {
    number: number?.shown ?? "",
    team: number?.team.id ?? teams[0]?.id ?? 0,
  });
  const { errors, isDirty, isSubmitting } = form.formState;
  const save = form.handleSubmit(async (input) => {
    if (!taken(form, await act("save-number", { id: number?.id ?? null, ...input }))) return;
    form.reset(form.getValues());
  });
  return (
    <form
      noValidate
      aria-label={number?.shown ?? t("anotherNumber")}
      className="flex flex-wrap items-end gap-x-6 gap-y-2"
      onSubmit={(event) => void save(event)}
    >
      <label className="flex w-56 flex-col gap-0.5 text-sm">
        {t("telephoneNumber")}
        <LineInput
          type="tel"
          field={form.register("number")}
          problem={errors.number?.message}
          className="text-base"
        />
      </label>
      <ChoiceField
        form={form}
        name="team"
        label={t("team")}
        options={teamOptions(teams)}
        read={Number}
        className="w-64"
      />
      {number === null ? (
        <Button type="submit" disabled={isSubmitting}>
          {t("addNumber")}
        </Button>
      ) : isDirty ? (
        <Button type="submit" disabled={isSubmitting}>
          {t("save")}
        </Button>
      ) : (
        <span className="flex gap-4 pb-1 text-sm text-soft">
          {t("countMessages", { count: number.messages })}
          <button
            type="button"
            className="quiet-link"
            onClick={() =>
              void send(`numbers/${number.id}/remove`, {}, t("numberIsRemoved", { number: number.shown }))
            }
          >
            {t("remove")}
          </button>
        </span>
      )}
      <FormProblem words={errors.root?.message ?? problem ?? undefined} />
    </form>
  );
}
