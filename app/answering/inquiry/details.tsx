import { Fragment, type ReactNode } from "react";
import { BOOKINGS, catalogue, detailName } from "#core/tokens/catalogue";
import { isOnTopic } from "#core/tokens/fields";
import { formatValue } from "#core/tokens/format";
import { lookUp } from "#core/tokens/values";
import type { SourceAsked } from "#server/details/of-case";
import type { OpenCase } from "#server/answering/open";
import type { Fillable } from "../../fields/fill-dialog";
import { FillIn } from "../../fields/fill-in";
import { Time } from "../../ui/time";
import { t } from "../../words/answering";
import { Sentence } from "../../words/sentence";

/** Booking, organisation and the house's own case fields, as far as they are known. */
export function Details({ open }: { open: OpenCase }) {
  const tokens = catalogue(open.own);
  const value = (name: string): string | null => {
    const type = tokens.get(name)?.type ?? null;
    const options: Record<string, string> =
      type === "datetime" ? { dateLength: "medium", dateFields: "month-day-weekday" } : {};
    const filled = formatValue(
      lookUp(open.context, name, type),
      { name, fn: type === "datetime" ? "datetime" : null, options },
      { language: "en-GB", timeZone: open.context.time_zone },
    );
    return filled.kind === "text" ? filled.text : null;
  };
  const pair = (name: string, label: string | null, usual: string | null) => {
    const text = value(name);
    if (text === null) return null;
    const called = label ?? capital(tokens.get(name)?.label ?? name);
    return <Pair key={name} label={called} value={text} strong={usual !== null && text !== usual} />;
  };
  const more = ["organisation.account", "organisation.contract_until"].map((name) => pair(name, null, null));
  const own = fieldsHere(open);
  const filled = own.map(
    ({ of, key, label, required }) =>
      pair(`${of}.${key}`, null, null) ??
      (required && (
        <Pair
          key={`${of}.${key}`}
          label={capital(label)}
          value={<span className="text-look">{t("notFilledIn")}</span>}
        />
      )),
  );
  const owners: Fillable[] = [
    { of: "case", id: open.id, title: open.label },
    { of: "customer", id: open.customer.id, title: open.customer.name },
    ...(open.customer.organisationId === null
      ? []
      : [
          {
            of: "organisation" as const,
            id: open.customer.organisationId,
            title: open.customer.organisation ?? "",
          },
        ]),
  ];
  const { details } = open.own;
  // A house that asks no outside system has nothing to say of bookings.
  if (details.length === 0 && own.length === 0 && more.every((one) => one === null)) return null;
  return (
    <dl className="mt-3 grid grid-cols-[auto_1fr_auto_1fr] gap-x-4 gap-y-1 border-y border-line py-3 text-[13px]">
      {open.sources.map((source) => (
        <Fragment key={source.key}>
          <SourceHead source={source} />
          {details
            .filter((detail) => (detail.source ?? BOOKINGS) === source.key)
            .map((detail) => detail.short !== null && pair(detailName(detail), detail.short, detail.usual))}
        </Fragment>
      ))}
      {more}
      {filled}
      {own.length > 0 && (
        <Wide>
          <FillIn owners={owners} topic={open.topic} className="text-soft underline underline-offset-2" />
        </Wide>
      )}
    </dl>
  );
}

/** The house's own fields that a case of this topic has, and its customer and their organisation. */
function fieldsHere({ own, topic, customer }: OpenCase) {
  return own.fields.filter(
    ({ of, topics, retired }) =>
      !retired &&
      (of === "case"
        ? isOnTopic(topics, topic)
        : of === "customer" || (of === "organisation" && customer.organisationId !== null)),
  );
}

/** By what a system is asked, and how it stands with its answer. */
function SourceHead({ source }: { source: SourceAsked }) {
  const { key, name, reference, asked, found, problem, readAt, old } = source;
  const isBooking = key === BOOKINGS;
  if (reference === null) return isBooking ? <Wide>{t("noBookingIsNamedInThis")}</Wide> : null;
  return (
    <>
      <Pair
        label={isBooking ? t("booking") : name}
        value={
          <>
            <strong>{reference}</strong> <span className="text-soft">{t("foundInTheMessage")}</span>
          </>
        }
      />
      {!found && <Wide>{problem ?? (asked ? t("nothingIsKnownOfIt") : t("askingTheSystem", { name }))}</Wide>}
      {found && problem !== null && <Wide>{t("problemThisIsWhatItSaid", { problem })}</Wide>}
      {found && readAt !== null && (problem !== null || old) && (
        <Wide>
          <Sentence of={t} name="asOf" parts={[<Time key="0" at={readAt} />]} />
        </Wide>
      )}
    </>
  );
}

function Pair({ label, value, strong = false }: { label: string; value: ReactNode; strong?: boolean }) {
  return (
    <>
      <dt className="text-soft">{label}</dt>
      <dd className={`[overflow-wrap:anywhere] ${strong ? "font-bold text-stop" : ""}`}>{value}</dd>
    </>
  );
}

function Wide({ children }: { children: ReactNode }) {
  return (
    <>
      <dt className="sr-only">{t("booking")}</dt>
      <dd className="col-span-3 text-soft">{children}</dd>
    </>
  );
}

function capital(text: string): string {
  return text.slice(0, 1).toUpperCase() + text.slice(1);
}
