import type { ReactNode } from "react";
import { catalogue } from "#core/tokens/catalogue";
import { formatValue } from "#core/tokens/format";
import { lookUp } from "#core/tokens/values";
import type { OpenCase } from "#server/answering/open";
import { t } from "../../words/answering";

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
  const more = [
    "organisation.account",
    "organisation.contract_until",
    ...open.own.caseFields.map((field) => `case.${field.key}`),
  ].map((name) => pair(name, null, null));
  const { details } = open.own;
  // A house that asks no outside system has nothing to say of bookings.
  if (details.length === 0 && more.every((one) => one === null)) return null;
  return (
    <dl className="mt-3 grid grid-cols-[auto_1fr_auto_1fr] gap-x-4 gap-y-1 border-y border-line py-3 text-[13px]">
      {details.length > 0 && <BookingHead open={open} />}
      {details.map(({ key, short, usual }) => short !== null && pair(`booking.${key}`, short, usual))}
      {more}
    </dl>
  );
}

function BookingHead({ open }: { open: OpenCase }) {
  const reference = open.bookingReference;
  if (reference === null) return <Wide>{t("noBookingIsNamedInThis")}</Wide>;
  const found = Object.keys(open.context.booking).length > 0;
  return (
    <>
      <Pair label={t("booking")} value={<strong>{reference}</strong>} />
      {!found && (
        <Wide>
          {open.booking.problem ??
            (open.booking.asked ? t("nothingIsKnownOfIt") : t("askingTheBookingSystem"))}
        </Wide>
      )}
      {found && open.booking.problem && (
        <Wide>{t("problemThisIsWhatItSaid", { problem: open.booking.problem })}</Wide>
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
