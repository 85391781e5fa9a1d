import { channelName, replyChannels } from "#core/words/named";
import { standingName, standings } from "#core/clock/answer-times";
import { answerTimeSchema, houseTimesSchema } from "#core/forms/answer-times";
import { listAnswerTimes, type AnswerTimeRow, type AnswerTimes } from "#server/house/answer-times";
import { signedIn } from "#server/web/context";
import { loaderResult } from "#server/web/results";
import { Controller } from "react-hook-form";
import { Button } from "../ui/button";
import { Disclosure } from "../ui/disclosure";
import { FieldProblem, FormProblem, LineInput, taken, useFormOf } from "../ui/form";
import { SortableList } from "../ui/sortable-list";
import { ExactTime } from "../ui/time";
import { useSave } from "../ui/use-save";
import { CalendarForm } from "./calendar-form";
import { ChoiceField } from "./choice-field";
import { DurationField } from "./duration-field";
import { Several } from "./several";
import type { Route } from "./+types/answer-times";
import { t } from "../words/setup";

export async function loader(args: Route.LoaderArgs) {
  const { viewer, em, now } = await signedIn(args);
  return loaderResult(() => listAnswerTimes(em, viewer, now));
}

const ALL_HOURS = "";

/** Hours to count by. */
function hoursOptions({ calendars }: AnswerTimes) {
  return [
    [ALL_HOURS, t("allHoursOfAllDays")] as const,
    ...calendars.map(({ id, name }) => [String(id), name] as const),
  ];
}

const readHours = (value: string) => (value === ALL_HOURS ? null : Number(value));

/** By what answers are due: how soon which cases, over what hours, and when a settled case opens again. */
export default function AnswerTimesPage({ loaderData }: Route.ComponentProps) {
  const { times, calendars, house } = loaderData;
  const { send } = useSave("/setup");
  const keys = times.map((time) => String(time.id));
  return (
    <>
      <title>{t("answerTimesPlainShelf")}</title>
      <h1 className="text-xl font-bold">{t("answerTimes")}</h1>
      <p className="mt-1 max-w-3xl text-soft">{t("theFirstThatACaseFits")}</p>
      <SortableList
        label={t("answerTimes")}
        keys={keys}
        nameOf={(key) => t("answerTimePlace", { place: keys.indexOf(key) + 1 })}
        onOrder={async (order) => {
          await send("order-answer-times", { ids: order.map(Number) });
        }}
        className="mt-4 flex max-w-5xl flex-col border-t border-line"
        itemClassName="border-b border-line bg-sheet py-3"
      >
        {(key, handle, index) => {
          const time = times.find((one) => String(one.id) === key);
          return (
            time && (
              <div className="flex items-start gap-2">
                {handle}
                <TimeForm time={time} name={t("answerTimePlace", { place: index + 1 })} all={loaderData} />
              </div>
            )
          );
        }}
      </SortableList>
      <Disclosure words={t("anotherAnswerTime")} className="mt-3 max-w-5xl" open={times.length === 0}>
        <div className="pt-2 pl-8">
          <TimeForm key={times.length} time={null} name={t("anotherAnswerTime")} all={loaderData} />
        </div>
      </Disclosure>
      <HouseTimes all={loaderData} />
      <h2 className="mt-8 font-bold">{t("businessHours")}</h2>
      <ul className="mt-2 flex max-w-5xl flex-col border-t border-line">
        {calendars.map((calendar) => (
          <li key={calendar.id} className="border-b border-line py-4">
            <CalendarForm calendar={calendar} timeZone={house.timeZone} />
          </li>
        ))}
      </ul>
      <Disclosure words={t("otherHours")} className="mt-3 max-w-5xl" open={calendars.length === 0}>
        <CalendarForm key={calendars.length} calendar={null} timeZone={house.timeZone} />
      </Disclosure>
    </>
  );
}

function HouseTimes({ all }: { all: AnswerTimes }) {
  const { act } = useSave("/setup");
  const { calendar, reopenDays } = all.house;
  const form = useFormOf(houseTimesSchema, { calendar, reopenDays });
  const { errors, isDirty, isSubmitting } = form.formState;
  const save = form.handleSubmit(async (input) => {
    if (taken(form, await act("save-house-times", input))) form.reset(input);
  });
  return (
    <form
      noValidate
      aria-label={t("whereNoneFits")}
      className="mt-6 flex max-w-5xl flex-wrap items-end gap-x-6 gap-y-2 text-sm"
      onSubmit={(event) => void save(event)}
    >
      <h2 className="w-full text-base font-bold">{t("whereNoneFits")}</h2>
      <p className="-mt-1 w-full text-soft">{t("eachTeamsOwnTimeCounts")}</p>
      <ChoiceField
        form={form}
        name="calendar"
        label={t("countedOver")}
        options={hoursOptions(all)}
        read={readHours}
        className="w-60"
      />
      <label className="flex w-[28rem] max-w-full flex-col gap-0.5">
        {t("aSettledCaseOpensAgainFor")}
        <span className="flex items-baseline gap-2 text-base">
          <LineInput
            type="number"
            field={form.register("reopenDays", { valueAsNumber: true })}
            problem={errors.reopenDays?.message}
            className="w-20"
          />
          {t("daysAfterIt")}
        </span>
      </label>
      {isDirty && (
        <Button type="submit" disabled={isSubmitting}>
          {t("save")}
        </Button>
      )}
      <FormProblem words={errors.root?.message} />
    </form>
  );
}

/** One answer time, read as a sentence. */
function TimeForm({ time, name, all }: { time: AnswerTimeRow | null; name: string; all: AnswerTimes }) {
  const { act, send, problem } = useSave("/setup");
  const form = useFormOf(answerTimeSchema, {
    channels: time?.channels ?? [],
    mailboxes: time?.mailboxes ?? [],
    topics: time?.topics ?? [],
    standings: time?.standings ?? [],
    firstWithin: time?.firstWithin ?? 4 * 60,
    nextWithin: time?.nextWithin ?? 24 * 60,
    calendar: time ? time.calendar : all.house.calendar,
  });
  const { errors, isDirty, isSubmitting } = form.formState;
  const save = form.handleSubmit(async (input) => {
    if (!taken(form, await act("save-answer-time", { id: time?.id ?? null, time: input }))) return;
    form.reset(time ? form.getValues() : undefined);
  });
  const addressOf = (id: string) => all.mailboxes.find((one) => String(one.id) === id)?.address ?? id;
  return (
    <form
      noValidate
      aria-label={name}
      className="flex grow flex-wrap items-end gap-x-5 gap-y-2 text-sm"
      onSubmit={(event) => void save(event)}
    >
      <Several
        form={form}
        name="channels"
        label={t("channel")}
        all={t("anyChannel")}
        options={replyChannels}
        nameOf={channelName}
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
      <Several form={form} name="topics" label={t("topic")} all={t("anyTopic")} options={all.topics} />
      <Several
        form={form}
        name="standings"
        label={t("customer")}
        all={t("anyCustomer")}
        options={standings}
        nameOf={(one) => standingName(standings.find((known) => known === one) ?? "private")}
      />
      {(["firstWithin", "nextWithin"] as const).map((which) => (
        <span key={which} className="flex flex-col gap-0.5">
          {which === "firstWithin" ? t("firstAnswerWithin") : t("laterOnesWithin")}
          <Controller
            control={form.control}
            name={which}
            render={({ field }) => (
              <DurationField
                label={which === "firstWithin" ? t("firstAnswerWithin") : t("laterOnesWithin")}
                value={field.value}
                onChange={field.onChange}
                invalid={errors[which] !== undefined}
              />
            )}
          />
          <FieldProblem words={errors[which]?.message} />
        </span>
      ))}
      <ChoiceField
        form={form}
        name="calendar"
        label={t("countedOver")}
        options={hoursOptions(all)}
        read={readHours}
        className="w-48"
      />
      {time === null || isDirty ? (
        <Button type="submit" disabled={isSubmitting}>
          {time === null ? t("addAnswerTime") : t("save")}
        </Button>
      ) : (
        <span className="pb-1 text-soft">
          {time.due !== null && (
            <>
              {t("writtenNowItIsDue")} <ExactTime at={Date.parse(time.due)} />{" "}
            </>
          )}
          <button
            type="button"
            className="quiet-link ml-2"
            onClick={() => void send(`answer-times/${time.id}/remove`, {}, t("answerTimeIsRemoved"))}
          >
            {t("remove")}
          </button>
        </span>
      )}
      <FormProblem words={errors.root?.message ?? problem ?? undefined} />
    </form>
  );
}
