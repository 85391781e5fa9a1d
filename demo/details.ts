import type { DetailToken, TokenType } from "#core/tokens/catalogue";
import type { Detail } from "#core/tokens/context";

type Row = [
  key: string,
  label: string,
  type: TokenType,
  example: Detail,
  more?: Partial<Pick<DetailToken, "always" | "ordinary" | "short" | "usual">>,
];

const always = true;
const ordinary = true;

const rows: Row[] = [
  ["reference", "booking reference", "text", "QW7-K2M", { always }],
  ["status", "booking status", "text", "confirmed", { always, ordinary, short: "State", usual: "confirmed" }],
  ["cause", "cause of a change", "text", "wind", { ordinary }],
  ["lead_name", "name on the booking", "text", "O. Vandermeersch", { always, short: "Name" }],
  ["sails_at", "sailing", "datetime", "2026-11-27T07:40:00Z", { always, short: "Sailing" }],
  ["arrives_at", "arrival", "datetime", "2026-11-27T09:25:00Z", { always }],
  ["check_in_at", "check-in closes", "datetime", "2026-11-27T06:55:00Z", { always }],
  ["from", "from harbour", "text", "Tarn Head", { always, short: "From" }],
  ["to", "to harbour", "text", "Pellick", { always, short: "To" }],
  ["ship", "ship", "text", "Kittiwake", { always, short: "Ship" }],
  ["fare", "fare", "money", { amount: 118, currency: "EUR" }, { always, short: "Fare" }],
  ["passengers", "number of passengers", "integer", 2, { always, short: "People" }],
  ["vehicle", "vehicle", "text", "van", { ordinary, short: "Vehicle" }],
  ["vehicle_height", "height of the vehicle, in metres", "number", 2.4, { short: "Height, m" }],
  ["animals", "number of animals", "integer", 1, { short: "Animals" }],
  ["new_sails_at", "new sailing", "datetime", "2026-11-28T06:15:00Z", { short: "New sailing" }],
  ["new_arrives_at", "arrival of the new sailing", "datetime", "2026-11-28T08:00:00Z"],
  ["new_ship", "ship of the new sailing", "text", "Second Tide", { short: "New ship" }],
];

/** What the ferry line's booking system knows of a booking, as its house defines it. */
export const ferryDetails: DetailToken[] = rows.map(([key, label, type, example, more]) => ({
  ...{ key, label, type, example, always: false, ordinary: false, short: null, usual: null },
  ...more,
}));
