import { mailboxSchema } from "#core/forms/mailboxes";
import { listMailboxes, type MailboxChoices, type MailboxRow } from "#server/staff/mailboxes";
import { signedIn } from "#server/web/context";
import { loaderResult } from "#server/web/results";
import { Button } from "../ui/button";
import { FormProblem, LineInput, taken, useFormOf } from "../ui/form";
import type { Option } from "../ui/select";
import { useSave } from "../ui/use-save";
import { BoxField } from "./box-field";
import { ChoiceField, teamOptions } from "./choice-field";
import type { Route } from "./+types/mailboxes";
import { t } from "../words/setup";

export async function loader(args: Route.LoaderArgs) {
  const { viewer, em } = await signedIn(args);
  return loaderResult(() => listMailboxes(em, viewer));
}

/** Mailboxes of the teams: what each is called, whose it is, and how letters from it look. */
export default function Mailboxes({ loaderData }: Route.ComponentProps) {
  const { mailboxes, choices } = loaderData;
  return (
    <>
      <title>{t("mailboxesPlainShelf")}</title>
      <h1 className="text-xl font-bold">{t("mailboxes")}</h1>
      <p className="mt-1 max-w-3xl text-soft">{t("mailToAMailboxBecomes")}</p>
      <ul className="mt-4 flex max-w-5xl flex-col border-t border-line">
        {mailboxes.map((mailbox) => (
          <li key={mailbox.id} className="border-b border-line py-4">
            <MailboxForm mailbox={mailbox} choices={choices} />
          </li>
        ))}
      </ul>
      <h2 className="mt-8 font-bold">{t("anotherMailbox")}</h2>
      <div className="mt-2 max-w-5xl">
        <MailboxForm key={mailboxes.length} mailbox={null} choices={choices} />
      </div>
    </>
  );
}

function MailboxForm({ mailbox, choices }: { mailbox: MailboxRow | null; choices: MailboxChoices }) {
  const { act, send, problem } = useSave("/setup");
  const form = useFormOf(mailboxSchema, {
    address: mailbox?.address ?? "",
    name: mailbox?.name ?? "",
    team: mailbox?.team ?? choices.teams[0]?.id ?? 0,
    stationery: mailbox?.stationery ?? null,
    opening: mailbox?.opening ?? "",
    closing: mailbox?.closing ?? "",
    quotes: mailbox?.quotes ?? false,
  });
  const { register, formState, watch } = form;
  const { errors, isDirty, isSubmitting } = formState;
  const team = watch("team");
  const save = form.handleSubmit(async (input) => {
    if (!taken(form, await act("save-mailbox", { id: mailbox?.id ?? null, ...input }))) return;
    form.reset(form.getValues());
  });
  const ofTeam = (all: MailboxChoices["openings"]): Option[] => [
    ["", t("asTheTeamUsually")],
    ...all.filter((one) => one.team === team).map((one) => [one.key, one.title] as const),
  ];
  return (
    <form
      noValidate
      aria-label={mailbox?.address ?? t("anotherMailbox")}
      className="flex flex-wrap items-end gap-x-6 gap-y-2.5 text-sm"
      onSubmit={(event) => void save(event)}
    >
      <label className="flex w-64 flex-col gap-0.5">
        {t("address")}
        <LineInput
          type="email"
          field={register("address")}
          problem={errors.address?.message}
          readOnly={mailbox?.isOwn === true}
          className="text-base"
        />
      </label>
      <label className="flex w-56 flex-col gap-0.5">
        {t("name")}
        <LineInput field={register("name")} problem={errors.name?.message} className="text-base" />
      </label>
      <ChoiceField
        form={form}
        name="team"
        label={t("team")}
        options={teamOptions(choices.teams)}
        read={Number}
        disabled={mailbox?.isOwn === true}
        className="w-56"
      />
      <ChoiceField
        form={form}
        name="stationery"
        label={t("stationery")}
        options={[
          ["", t("asTheTeam")],
          ...choices.papers.map((one) => [String(one.team), one.name] as const),
        ]}
        read={(value) => (value === "" ? null : Number(value))}
        className="w-56"
      />
      <ChoiceField
        form={form}
        name="opening"
        label={t("opensWith")}
        options={ofTeam(choices.openings)}
        className="w-56"
      />
      <ChoiceField
        form={form}
        name="closing"
        label={t("closesWith")}
        options={ofTeam(choices.closings)}
        className="w-56"
      />
      <BoxField form={form} name="quotes" label={t("answersQuote")} className="pb-1" />
      {mailbox === null || isDirty ? (
        <Button type="submit" disabled={isSubmitting}>
          {mailbox === null ? t("addMailbox") : t("save")}
        </Button>
      ) : (
        <span className="flex gap-4 pb-1 text-soft">
          {mailbox.isOwn ? t("theTeamsOwn") : t("countCases", { count: mailbox.cases })}
          {!mailbox.isOwn && (
            <button
              type="button"
              className="quiet-link"
              onClick={() =>
                void send(
                  `mailboxes/${mailbox.id}/remove`,
                  {},
                  t("mailboxIsRemoved", { mailbox: mailbox.address }),
                )
              }
            >
              {t("remove")}
            </button>
          )}
        </span>
      )}
      <FormProblem words={errors.root?.message ?? problem ?? undefined} />
    </form>
  );
}
