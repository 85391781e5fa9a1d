import type { ReactNode } from "react";
import { catalogue } from "#core/tokens/catalogue";
import { formatValue } from "#core/tokens/format";
import { lookUp } from "#core/tokens/values";
import type { OpenCase } from "#server/answering/open";

const shown = [
  "booking.status",
  "booking.sails_at",
  "booking.ship",
  "booking.from",
  "booking.to",
  "booking.fare",
  "booking.passengers",
  "booking.vehicle",
  "booking.vehicle_height",
  "booking.animals",
  "booking.new_sails_at",
  "booking.new_ship",
];

const short: Record<string, string> = {
  "booking.status": "State",
  "booking.sails_at": "Sailing",
  "booking.from": "From",
  "booking.to": "To",
  "booking.passengers": "People",
  "booking.vehicle_height": "Height, m",
  "booking.animals": "Animals",
  "booking.new_sails_at": "New sailing",
  "booking.new_ship": "New ship",
};

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
  const rows = (names: string[]) =>
    names.flatMap((name) => {
      const text = value(name);
      const label = short[name] ?? capital(tokens.get(name)?.label ?? name);
      return text === null
        ? []
        : [
            <Pair
              key={name}
              label={label}
              value={text}
              strong={name === "booking.status" && text !== "confirmed"}
            />,
          ];
    });
  const booking = rows(shown);
  const lead = value("booking.lead_name");
  const more = rows([
    "organisation.account",
    "organisation.contract_until",
    ...open.own.caseFields.map((field) => `case.${field.key}`),
  ]);
  return (
    <dl className="mt-3 grid grid-cols-[auto_1fr_auto_1fr] gap-x-4 gap-y-1 border-y border-line py-3 text-[13px]">
      <BookingHead open={open} />
      {booking}
      {more}
      {lead !== null && (
        <>
          <dt className="col-start-1 text-soft">Name</dt>
          <dd className="col-span-3 [overflow-wrap:anywhere]">{lead}</dd>
        </>
      )}
    </dl>
  );
}

function BookingHead({ open }: { open: OpenCase }) {
  const reference = open.bookingReference;
  if (reference === null) return <Wide>No booking is named in this case.</Wide>;
  const found = Object.keys(open.context.booking).length > 0;
  return (
    <>
      <Pair label="Booking" value={<strong>{reference}</strong>} />
      {!found && (
        <Wide>
          {open.booking.problem ??
            (open.booking.asked ? "Nothing is known of it." : "Asking the booking system…")}
        </Wide>
      )}
      {found && open.booking.problem && <Wide>{open.booking.problem}; this is what it said before.</Wide>}
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
      <dt className="sr-only">Booking</dt>
      <dd className="col-span-3 text-soft">{children}</dd>
    </>
  );
}

function capital(text: string): string {
  return text.slice(0, 1).toUpperCase() + text.slice(1);
}
