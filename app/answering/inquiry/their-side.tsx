import { listed } from "#core/text/counted";
import { memo } from "react";
import { Link } from "react-router";
import type { OpenCase } from "#server/answering/open";
import { asideName, caseStateName } from "#core/words/case-states";
import { languageName } from "#core/language/tag";
import { exactTime, Time, timeLeftAlone, useClock } from "../../ui/time";
import { Conversation } from "./conversation";
import { Details } from "./details";
import { Disclosure } from "../../ui/disclosure";
import { Promises } from "../../ui/promises";
import { Hint } from "../../ui/hint";
import { Notes } from "../notes/notes";
import { TimeSpent } from "../time/time-spent";
import { CaseMenu } from "../changes/menus";
import { useChange } from "../changes/use-change";
import { t } from "../../words/answering";

/** What the customer said, and what we know of them. */
export const TheirSide = memo(function TheirSide({ open }: { open: OpenCase }) {
  const { customer } = open;
  const facts = [
    customer.since && t("withUsSinceSince", { since: customer.since.slice(0, 4) }),
    customer.language && t("writesLanguage", { language: languageName(customer.language) }),
    customer.phone,
  ].filter(Boolean);
  return (
    <section
      aria-label={t("theirSide")}
      className="min-h-0 border-line px-6 py-4 md:overflow-y-auto md:border-r lg:px-9"
    >
      <div className="flex items-baseline justify-between gap-3 text-sm">
        <span className="flex items-center gap-1.5 text-soft">
          {[open.label, open.channel, open.topic].filter(Boolean).join(", ")}
          {open.tags.length > 0 && ` · ${open.tags.join(", ")}`}
          <CaseMenu open={open} />
        </span>
        <Due open={open} />
      </div>
      <TimeBar open={open} />
      <h1 className="mt-3 text-xl leading-tight font-bold [overflow-wrap:anywhere]">
        {open.subject || t("noSubject")}
      </h1>
      <p className="mt-1 text-soft [overflow-wrap:anywhere]">
        <Link to={`/customers/${customer.id}`} className="text-ink underline underline-offset-2">
          {customer.name}
        </Link>
        {customer.organisationId !== null && (
          <>
            {", "}
            <Link to={`/organisations/${customer.organisationId}`} className="underline underline-offset-2">
              {customer.organisation}
            </Link>
            {customer.organisationKind && ` (${customer.organisationKind})`}
          </>
        )}
        {facts.length > 0 && `, ${facts.join(", ")}`}
      </p>
      <StateLine open={open} />
      {open.forwarder !== null && open.forwarded !== null && (
        <p className="mt-1 text-sm text-soft [overflow-wrap:anywhere]">
          {[
            t("cameByName", { name: open.forwarder.name }),
            open.forwarded.reference === null
              ? null
              : t("orderReference", { reference: open.forwarded.reference }),
            open.forwarded.deadline === null
              ? null
              : t("wantsAnAnswerBy", { deadline: open.forwarded.deadline }),
          ]
            .filter((part) => part !== null)
            .join(", ")}
        </p>
      )}
      {open.others.length > 0 && (
        <p
          role="status"
          className="mt-2 border-l-[3px] border-look bg-look-wash px-2.5 py-1.5 font-semibold text-look"
        >
          {othersWords(open.others)}
        </p>
      )}
      <Promises promises={open.promises} />
      <Notes open={open} />
      <Details open={open} />
      <Conversation open={open} />
      {open.earlierCases.length > 0 && (
        <section className="mt-5 border-t border-line pt-3 text-sm">
          <h2 className="font-bold">{t("otherCases")}</h2>
          <ul>
            {open.earlierCases.map((one) => (
              <li key={one.number} className="flex gap-2">
                <Link to={`/cases/${one.number}`} className="truncate underline underline-offset-2">
                  {one.label} {one.subject}
                </Link>
                <span className="ml-auto whitespace-nowrap text-soft">
                  {caseStateName(one.status)}, <Time at={one.openedAt} />
                </span>
              </li>
            ))}
          </ul>
        </section>
      )}
      <Disclosure words={t("history")} className="mt-5 border-t border-line pt-3 text-sm">
        <p className="mt-1">
          <Link to={`/cases/${open.number}/record`} className="quiet-link">
            {t("theWholeRecord")}
          </Link>
        </p>
        <ol className="mt-1">
          {open.history.map((entry) => (
            <li key={entry.id} className="grid grid-cols-[7rem_1fr] gap-2">
              <Time at={entry.at} className="text-soft" />
              <span>
                {entry.who && `${entry.who} `}
                {entry.what}
                {entry.undo !== null && <UndoChange number={open.number} change={entry.undo} />}
              </span>
            </li>
          ))}
        </ol>
      </Disclosure>
    </section>
  );
});

/** How the case stands, whose it is and what it goes on from, in words. */
function StateLine({ open }: { open: OpenCase }) {
  const state =
    open.asideAs === null
      ? caseStateName(open.status)
      : t("asideAsKind", { state: caseStateName(open.status), kind: asideName(open.asideAs) });
  return (
    <p className="mt-1 text-sm text-soft [overflow-wrap:anywhere]">
      <span className="text-ink">{state}</span>
      {open.stateReason !== null && `: ${open.stateReason}`}
      {`, ${open.assignee === null ? t("nobodysCase") : t("namesCase", { name: open.assignee.name })}`}
      <TimeSpent times={open.times} />
      {open.follows !== null && (
        <>
          {", "}
          <Link to={`/cases/${open.follows.number}`} className="underline underline-offset-2">
            {t("goesOnFrom", { label: open.follows.label })}
          </Link>
        </>
      )}
    </p>
  );
}

function UndoChange({ number, change }: { number: number; change: number }) {
  const { undo } = useChange(number);
  return (
    <button type="button" className="quiet-link ml-2" onClick={() => void undo(change)}>
      {t("undo")}
    </button>
  );
}

function Due({ open }: { open: OpenCase }) {
  const { now, timeZone } = useClock();
  if (open.answerBy === null) return <span className="text-soft">{caseStateName(open.status)}</span>;
  const due = Date.parse(open.answerBy);
  const left = due - now;
  const tone = left < 0 ? "text-stop" : left < 3_600_000 ? "text-look" : "text-ink";
  return (
    <Hint
      words={[t("answerByDue", { due: exactTime(due, timeZone) }), ...open.whyDue].map((line) => (
        <span key={line} className="block">
          {line}
        </span>
      ))}
    >
      <time dateTime={open.answerBy} className={`font-bold ${tone}`}>
        {timeLeftAlone(due, now, timeZone)}
      </time>
    </Hint>
  );
}

/** How much of the time to answer is used up, as a line that empties. */
function TimeBar({ open }: { open: OpenCase }) {
  const { now } = useClock();
  if (open.answerBy === null || open.waitingSince === null) return <div className="mt-1.5 h-1 bg-line" />;
  const start = Date.parse(open.waitingSince);
  const due = Date.parse(open.answerBy);
  const used = Math.max(0, Math.min(1, (now - start) / Math.max(1, due - start)));
  const tone = used >= 1 ? "text-stop" : due - now < 3_600_000 ? "text-look" : "text-accent";
  return (
    <svg
      aria-hidden="true"
      className={`mt-1.5 h-1 w-full ${tone}`}
      viewBox="0 0 100 1"
      preserveAspectRatio="none"
    >
      <rect width="100" height="1" className="fill-line" />
      <rect width={used * 100} height="1" fill="currentColor" />
    </svg>
  );
}

/** Who else is on a case, and who began an answer there and is not on it now. */
function othersWords(others: OpenCase["others"]): string {
  const names = (isHere: boolean) => others.filter(({ here }) => here === isHere).map(({ name }) => name);
  const [here, away] = [names(true), names(false)];
  const words = [
    ...(here.length > 0 ? [t("haveThisCaseOpenToo", { count: here.length, names: listed(here) })] : []),
    ...(away.length > 0 ? [t("beganAnAnswerHere", { names: listed(away) })] : []),
  ];
  return words.join("; ");
}
