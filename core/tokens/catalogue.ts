import type { Detail, TokenGroup } from "./context";

export type TokenType =
  | "text"
  | "long_text"
  | "integer"
  | "number"
  | "money"
  | "date"
  | "time"
  | "datetime"
  | "yes_no"
  | "link"
  | "language";

/** A value that fills itself: what it is called, what kind of value it has, and one to look at. */
export interface Token {
  /** `group.key`, as it stands in texts. */
  name: string;
  group: TokenGroup;
  label: string;
  type: TokenType;
  example: Detail;
}

type Row = [key: string, label: string, type: TokenType, example: Detail];

const rows: Record<Exclude<TokenGroup, "house"> | "house", Row[]> = {
  case: [
    ["number", "case number", "text", "SF-20417"],
    ["subject", "subject of the case", "text", "friday boat??"],
    ["topic", "topic", "text", "sailings"],
    ["channel", "channel", "text", "email"],
    ["language", "language of the case", "language", "en"],
    ["opened_at", "first message received", "datetime", "2026-11-25T09:12:00Z"],
    ["answer_by", "answer due by", "datetime", "2026-11-25T13:12:00Z"],
  ],
  customer: [
    ["first_name", "first name", "text", "Ottoline"],
    ["last_name", "last name", "text", "Vandermeersch"],
    ["full_name", "full name", "text", "Ottoline Vandermeersch"],
    ["email", "email address", "text", "ottoline@example.org"],
    ["phone", "phone number", "text", "+44 20 7946 0331"],
    ["language", "language of the customer", "language", "en"],
    ["since", "with us since", "date", "2021-05-01"],
  ],
  organisation: [
    ["name", "organisation", "text", "Brandt Haulage"],
    ["kind", "kind of organisation", "text", "haulage firm"],
    ["account", "account number", "text", "A-1182"],
    ["contract_until", "contract runs until", "date", "2027-03-31"],
  ],
  booking: [
    ["reference", "booking reference", "text", "QW7-K2M"],
    ["status", "booking status", "text", "confirmed"],
    ["cause", "cause of a change", "text", "wind"],
    ["lead_name", "name on the booking", "text", "O. Vandermeersch"],
    ["sails_at", "sailing", "datetime", "2026-11-27T07:40:00Z"],
    ["arrives_at", "arrival", "datetime", "2026-11-27T09:25:00Z"],
    ["check_in_at", "check-in closes", "datetime", "2026-11-27T06:55:00Z"],
    ["from", "from harbour", "text", "Tarn Head"],
    ["to", "to harbour", "text", "Pellick"],
    ["ship", "ship", "text", "Kittiwake"],
    ["fare", "fare", "money", { amount: 118, currency: "EUR" }],
    ["passengers", "number of passengers", "integer", 2],
    ["vehicle", "vehicle", "text", "van"],
    ["vehicle_height", "height of the vehicle, in metres", "number", 2.4],
    ["animals", "number of animals", "integer", 1],
    ["new_sails_at", "new sailing", "datetime", "2026-11-28T06:15:00Z"],
    ["new_arrives_at", "arrival of the new sailing", "datetime", "2026-11-28T08:00:00Z"],
    ["new_ship", "ship of the new sailing", "text", "Second Tide"],
  ],
  agent: [
    ["name", "agent’s name", "text", "Maren Oduya"],
    ["first_name", "agent’s first name", "text", "Maren"],
    ["title", "agent’s title", "text", "Passenger adviser"],
    ["department", "agent’s department", "text", "Passenger desk"],
    ["email", "agent’s email address", "text", "maren@example.com"],
    ["phone", "agent’s phone number", "text", "+44 20 7946 0100"],
  ],
  house: [["name", "our name", "text", "Sollen Sound Ferries"]],
};

/** The tokens that every house has. Custom case fields and house facts join them by `catalogue`. */
const builtIn: readonly Token[] = Object.entries(rows).flatMap(([group, list]) =>
  list.map(([key, label, type, example]) => ({
    name: `${group}.${key}`,
    group: group as TokenGroup,
    label,
    type,
    example,
  })),
);

/** A case field or house fact that the house defined for itself. */
export interface OwnToken {
  key: string;
  label: string;
  type: TokenType;
  example: Detail;
}

interface Own {
  caseFields?: OwnToken[];
  houseFacts?: OwnToken[];
}

const NONE: Own = {};
const known = new WeakMap<Own, ReadonlyMap<string, Token>>();

/**
 * Every token that a reply may use, by full name.
 * @param own custom case fields (`case.KEY`) and house facts (`house.KEY`), as the database or a library file knows them;
 * not changed afterwards: what was made of it is made once
 */
export function catalogue(own: Own = NONE): ReadonlyMap<string, Token> {
  let made = known.get(own);
  if (!made) known.set(own, (made = listed(own)));
  return made;
}

function listed(own: Own): ReadonlyMap<string, Token> {
  const all = [
    ...builtIn,
    ...(own.caseFields ?? []).map((field) => ({
      ...field,
      name: `case.${field.key}`,
      group: "case" as const,
    })),
    ...(own.houseFacts ?? []).map((fact) => ({
      ...fact,
      name: `house.${fact.key}`,
      group: "house" as const,
    })),
  ];
  return new Map(
    all.map(({ name, group, label, type, example }) => [name, { name, group, label, type, example }]),
  );
}
