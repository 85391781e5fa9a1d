import { useState } from "react";
import { noticeSchema, stateWordsSchema } from "#core/forms/notice";
import {
  noticeChanges,
  noticeChannels,
  noticeWays,
  type NoticeChange,
  type NoticeWay,
} from "#core/notices/notice";
import { allStateWords } from "#core/notices/state-words";
import { languageName } from "#core/language/tag";
import { caseStateName, caseStates, setStates, type SetState } from "#core/words/case-states";
import { channelName } from "#core/words/named";
import { listNotices, type NoticeRow, type Notices } from "#server/notices/notices";
import { signedIn } from "#server/web/context";
import { loaderResult } from "#server/web/results";
import { Button } from "../ui/button";
import { Disclosure } from "../ui/disclosure";
import { FieldProblem, FormProblem, LineInput, taken, useFormOf } from "../ui/form";
import { ReplyChoice } from "../ui/reply-choice";
import { SortableList } from "../ui/sortable-list";
import { said } from "../ui/select";
import { useSave } from "../ui/use-save";
import { ChoiceField } from "./choice-field";
import { Several } from "./several";
import type { Route } from "./+types/notices";
import { t } from "../words/setup";

export async function loader(args: Route.LoaderArgs) {
  const { viewer, em } = await signedIn(args);
  return loaderResult(() => listNotices(em, viewer));
}

/** Of what customers are told when their cases change, and what states are called to them. */
export default function NoticesPage({ loaderData }: Route.ComponentProps) {
  const { notices } = loaderData;
  const { send } = useSave("/setup");
  const keys = notices.map((notice) => String(notice.id));
  const nameOf = (key: string) => t("noticePlace", { place: keys.indexOf(key) + 1 });
  return (
    <>
      <title>{t("noticesPlainShelf")}</title>
      <h1 className="text-xl font-bold">{t("notices")}</h1>
      <p className="mt-1 max-w-3xl text-soft">{t("whatCustomersAreTold")}</p>
      <SortableList
        label={t("notices")}
        keys={keys}
        nameOf={nameOf}
        onOrder={async (order) => {
          await send("order-notices", { ids: order.map(Number) });
        }}
        className="mt-4 flex max-w-5xl flex-col border-t border-line"
        itemClassName="border-b border-line bg-sheet py-3"
      >
        {(key, handle) => {
          const notice = notices.find((one) => String(one.id) === key);
          return (
            notice && (
              <div className="flex items-start gap-2">
                {handle}
                <NoticeForm notice={notice} name={nameOf(key)} all={loaderData} />
              </div>
            )
          );
        }}
      </SortableList>
      <Disclosure words={t("anotherNotice")} className="mt-3 max-w-5xl" open={notices.length === 0}>
        <div className="pt-2 pl-8">
          <NoticeForm key={notices.length} notice={null} name={t("anotherNotice")} all={loaderData} />
        </div>
      </Disclosure>
      <StateWords all={loaderData} />
    </>
  );
}

const changeNames: Record<NoticeChange, () => string> = {
  state: () => t("itsState"),
  topic: () => t("itsTopic"),
  owner: () => t("whoseItIs"),
  promise: () => t("aPromise"),
};
const wayNames: Record<NoticeWay, () => string> = {
  offered: () => t("offeredToWhoHasTheCase"),
  queued: () => t("goesByItself"),
};

/** One notice, read as a sentence: when what changes, which reply, and who sends it. */
function NoticeForm({ notice, name, all }: { notice: NoticeRow | null; name: string; all: Notices }) {
  const { act, send, problem } = useSave("/setup");
  const form = useFormOf(noticeSchema, {
    reply: notice?.reply ?? "",
    on: notice?.on ?? "state",
    into: notice?.into ?? [],
    mailboxes: notice?.mailboxes ?? [],
    channels: notice?.channels ?? [],
    way: notice?.way ?? "offered",
    minutes: notice?.minutes ?? 10,
  });
  const [title, setTitle] = useState(notice?.title ?? null);
  const { errors, isDirty, isSubmitting } = form.formState;
  const [on, way] = form.watch(["on", "way"]);
  const save = form.handleSubmit(async (input) => {
    if (!taken(form, await act("save-notice", { id: notice?.id ?? null, notice: input }))) return;
    form.reset(notice ? form.getValues() : undefined);
  });
  const addressOf = (id: string) => all.mailboxes.find((one) => String(one.id) === id)?.address ?? id;
  return (
    <form
      noValidate
      aria-label={name}
      className="flex grow flex-wrap items-end gap-x-5 gap-y-2 text-sm"
      onSubmit={(event) => void save(event)}
    >
      <ChoiceField
        form={form}
        name="on"
        label={t("whenThisChanges")}
        options={said(noticeChanges, (one) => changeNames[one]())}
        read={(value) => {
          form.setValue("into", []);
          return value;
        }}
        className="w-36"
      />
      {on === "state" && (
        <Several
          form={form}
          name="into"
          label={t("into")}
          all={t("anyState")}
          options={setStates}
          nameOf={(one) => caseStateName(one as SetState)}
        />
      )}
      {on === "topic" && (
        <Several form={form} name="into" label={t("into")} all={t("anyTopic")} options={all.topics} />
      )}
      <Several
        form={form}
        name="channels"
        label={t("channel")}
        all={t("anyChannel")}
        options={noticeChannels}
        nameOf={(one) => channelName(one)}
      />
      <Several
        form={form}
        name="mailboxes"
        label={t("mailbox")}
        all={t("anyMailbox")}
        options={all.mailboxes.map((one) => String(one.id))}
        nameOf={addressOf}
        read={Number}
      />
      <span className="flex w-64 flex-col gap-0.5">
        {t("theReply")}
        <ReplyChoice
          title={title}
          onChoose={(reply) => {
            form.setValue("reply", reply.key, { shouldDirty: true, shouldValidate: true });
            setTitle(reply.title);
          }}
        />
        <FieldProblem words={errors.reply?.message ?? notice?.idle ?? undefined} />
      </span>
      <ChoiceField
        form={form}
        name="way"
        label={t("whoSendsIt")}
        options={said(noticeWays, (one) => wayNames[one]())}
        className="w-56"
      />
      {way === "queued" && (
        <label className="flex flex-col gap-0.5">
          {t("canBeCalledBackFor")}
          <span className="flex items-baseline gap-2 text-base">
            <LineInput
              type="number"
              field={form.register("minutes", { valueAsNumber: true })}
              problem={errors.minutes?.message}
              className="w-16"
            />
            {t("minutes")}
          </span>
        </label>
      )}
      {notice === null || isDirty ? (
        <Button type="submit" disabled={isSubmitting}>
          {notice === null ? t("addNotice") : t("save")}
        </Button>
      ) : (
        <button
          type="button"
          className="quiet-link pb-1"
          onClick={() => void send(`notices/${notice.id}/remove`, {}, t("noticeIsRemoved"))}
        >
          {t("remove")}
        </button>
      )}
      <FormProblem words={errors.root?.message ?? problem ?? undefined} />
    </form>
  );
}

/** What states are called to customers, in each language of the house. */
function StateWords({ all }: { all: Notices }) {
  const { act } = useSave("/setup");
  const form = useFormOf(
    stateWordsSchema,
    stateWordsSchema.parse(
      Object.fromEntries(
        caseStates.map((state) => [
          state,
          Object.fromEntries(all.languages.map((tag) => [tag, all.stateWords[state]?.[tag] ?? ""])),
        ]),
      ),
    ),
  );
  const { errors, isDirty, isSubmitting } = form.formState;
  const save = form.handleSubmit(async (input) => {
    if (taken(form, await act("save-state-words", input))) form.reset(input);
  });
  return (
    <form
      noValidate
      aria-label={t("whatStatesAreCalled")}
      className="mt-8 max-w-5xl"
      onSubmit={(event) => void save(event)}
    >
      <h2 className="font-bold">{t("whatStatesAreCalled")}</h2>
      <p className="text-sm text-soft">{t("lettersReadItAs")}</p>
      <table className="mt-2 w-full table-fixed text-left text-sm">
        <thead className="text-soft">
          <tr>
            <th scope="col" className="w-44 py-1 font-normal">
              {t("state")}
            </th>
            {all.languages.map((tag) => (
              <th key={tag} scope="col" className="py-1 pr-4 font-normal">
                {languageName(tag)}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {caseStates.map((state) => (
            <tr key={state}>
              <th scope="row" className="py-1.5 font-normal">
                {caseStateName(state)}
              </th>
              {all.languages.map((tag) => (
                <td key={tag} className="py-1.5 pr-4">
                  <input
                    {...form.register(`${state}.${tag}`)}
                    aria-label={t("stateInLanguage", {
                      state: caseStateName(state),
                      language: languageName(tag),
                    })}
                    aria-invalid={errors[state]?.[tag] !== undefined}
                    placeholder={allStateWords({}, tag)[state] ?? ""}
                    maxLength={100}
                    lang={tag}
                    className="lined-field w-full text-base"
                  />
                  <FieldProblem words={errors[state]?.[tag]?.message} />
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
      {isDirty && (
        <Button type="submit" disabled={isSubmitting} className="mt-3">
          {t("save")}
        </Button>
      )}
      <FormProblem words={errors.root?.message} />
    </form>
  );
}
