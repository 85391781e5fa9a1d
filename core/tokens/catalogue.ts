import { t } from "../words/labels";
import { t as tokenWords } from "../words/tokens";
import type { Detail, TokenGroup } from "./context";
import type { FieldOwner } from "./fields";

export const tokenTypes = [
  "text",
  "long_text",
  "integer",
  "number",
  "money",
  "date",
  "time",
  "datetime",
  "yes_no",
  "link",
  "language",
] as const;
export type TokenType = (typeof tokenTypes)[number];

/** A value that fills itself: what it is called, what kind of value it has, and one to look at. */
export interface Token {
  /** `group.key`, as it stands in texts. */
  name: string;
  group: TokenGroup;
  label: string;
  type: TokenType;
  example: Detail;
  /** Whether every booking says it, where it is a detail of one. */
  always?: boolean;
  /** Whether it is an ordinary word, by which no booking is known again. */
  ordinary?: boolean;
  /** Topics of cases whose letters are worth a look without it, empty for all; left out where it is not required. */
  requiredOn?: string[];
  /** A field that is not filled in any more: what reads it still does, and nothing new is offered it. */
  retired?: boolean;
}

/** The name of a label among the words of labels. */
type Label = Parameters<typeof t>[0];

type Row = [key: string, label: Label, type: TokenType, example: Detail];

const rows: Record<Exclude<TokenGroup, "booking" | "detail" | "ask" | "answer">, Row[]> = {
  case: [
    ["number", "caseNumber", "text", "SF-20417"],
    ["subject", "subjectOfTheCase", "text", "friday boat??"],
    ["topic", "topic", "text", "sailings"],
    ["channel", "channel", "text", "email"],
    ["language", "languageOfTheCase", "language", "en"],
    ["opened_at", "firstMessageReceived", "datetime", "2026-11-25T09:12:00Z"],
    ["answer_by", "answerDueBy", "datetime", "2026-11-25T13:12:00Z"],
    ["state", "stateInTheirWords", "text", "being looked at"],
    ["owner", "whoseCaseItIs", "text", "Maren Oduya"],
    ["time_spent", "timeSpentOnIt", "text", "1 hour, 20 minutes"],
    ["done", "whatWasDone", "text", "we asked the harbour master"],
    ["promised", "whatWasPromised", "text", "a new boarding pass"],
    ["next_date", "nextPromisedDate", "date", "2026-12-01"],
  ],
  customer: [
    ["first_name", "firstName", "text", "Ottoline"],
    ["last_name", "lastName", "text", "Vandermeersch"],
    ["full_name", "fullName", "text", "Ottoline Vandermeersch"],
    ["email", "emailAddress", "text", "ottoline@example.org"],
    ["phone", "phoneNumber", "text", "+44 20 7946 0331"],
    ["language", "languageOfTheCustomer", "language", "en"],
    ["since", "withUsSince", "date", "2021-05-01"],
  ],
  organisation: [
    ["name", "organisation", "text", "Brandt Haulage"],
    ["kind", "kindOfOrganisation", "text", "haulage firm"],
    ["account", "accountNumber", "text", "A-1182"],
    ["contract_until", "contractRunsUntil", "date", "2027-03-31"],
  ],
  agent: [
    ["name", "agentsName", "text", "Maren Oduya"],
    ["first_name", "agentsFirstName", "text", "Maren"],
    ["title", "agentsTitle", "text", "Passenger adviser"],
    ["team", "agentsTeam", "text", "Passenger desk"],
    ["department", "agentsDepartment", "text", "Passenger desk"],
    ["email", "agentsEmailAddress", "text", "maren@example.com"],
    ["phone", "agentsPhoneNumber", "text", "+44 20 7946 0100"],
  ],
  house: [["name", "ourName", "text", "Sollen Sound Ferries"]],
};

/** The tokens that every house has. Custom case fields, house facts and details of outside systems join them by `catalogue`. */
function builtIn(): readonly Token[] {
  return Object.entries(rows).flatMap(([group, list]) =>
    list.map(([key, label, type, example]) => ({
      name: `${group}.${key}`,
      group: group as TokenGroup,
      label: t(label),
      type,
      example,
    })),
  );
}

/** A case field or house fact that the house defined for itself. */
export interface OwnToken {
  key: string;
  label: string;
  type: TokenType;
  example: Detail;
}

/** A field that the house added to its cases, customers, organisations or colleagues: read as `OF.KEY`. */
export interface FieldToken extends OwnToken {
  of: FieldOwner;
  /** Cases of which topics have it; empty for all. */
  topics: string[];
  /** Whether a letter is worth a look without it. */
  required: boolean;
  /** Not filled in any more: what reads it still does. */
  retired: boolean;
}

/** A detail of an outside system that the house asks, as a booking’s: read as `booking.KEY`. */
export interface DetailToken extends OwnToken {
  /** The key of the system that tells it; of bookings where it is left out. */
  source?: string;
  /** Whether every booking says it: replies for cases with a booking need no stand-in for it then. */
  always: boolean;
  /** Whether its values are ordinary words, by which no booking is known again in a text. */
  ordinary: boolean;
  /** What it is called beside a case; null where it is not shown there. */
  short: string | null;
  /** The value that needs no look beside a case; null where each is as good as the other. */
  usual: string | null;
}

/** A question with fixed answers: asked as `ask.KEY`, its answer read as `answer.KEY`. */
export interface QuestionToken {
  key: string;
  words: string;
  /** What its answers are. */
  type: TokenType;
  example: Detail;
}

interface Own {
  questions?: QuestionToken[];
  fields?: FieldToken[];
  houseFacts?: OwnToken[];
  details?: DetailToken[];
}

const NONE: Own = {};
const known = new WeakMap<Own, ReadonlyMap<string, Token>>();

/**
 * Every token that a reply may use, by full name.
 * @param own custom fields (`case.KEY`, `customer.KEY` and the like), house facts (`house.KEY`), details of outside systems (`booking.KEY`) and questions (`ask.KEY`, `answer.KEY`), as the database or a library file knows them;
 * not changed afterwards: what was made of it is made once
 */
export function catalogue(own: Own = NONE): ReadonlyMap<string, Token> {
  let made = known.get(own);
  if (!made) known.set(own, (made = listed(own)));
  return made;
}

const OURS: ReadonlySet<TokenGroup> = new Set<TokenGroup>(["agent", "house"]);

/** The system whose references are bookings: its details are read as `booking.KEY`, and a case has its reference. */
export const BOOKINGS = "bookings";

/** Whether a detail is told of bookings. */
function isOfBooking({ source = BOOKINGS }: Pick<DetailToken, "source">): boolean {
  return source === BOOKINGS;
}

/** The name of a detail's token: of a booking by its own key, of other systems with theirs before it. */
export function detailName(field: Pick<DetailToken, "source" | "key">): string {
  return isOfBooking(field) ? `booking.${field.key}` : `detail.${field.source}_${field.key}`;
}

function listed(own: Own): ReadonlyMap<string, Token> {
  const details = (own.details ?? []).map((field): Token => ({
    name: detailName(field),
    group: isOfBooking(field) ? "booking" : "detail",
    label: field.label,
    type: field.type,
    example: field.example,
    // Whatever a system always says, not every case is known to it.
    always: isOfBooking(field) && field.always,
    ordinary: field.ordinary,
  }));
  // In the order in which people think of them: the case, who wrote, what it is about, ourselves.
  const ours = builtIn();
  const [before, after] = [
    ours.filter(({ group }) => !OURS.has(group)),
    ours.filter(({ group }) => OURS.has(group)),
  ];
  const all: Token[] = [
    ...before,
    ...details,
    ...after,
    ...(own.fields ?? []).map(({ of, key, label, type, example, topics, required, retired }): Token => ({
      name: `${of}.${key}`,
      group: of,
      ...{ label, type, example },
      ...(required && !retired ? { requiredOn: topics } : {}),
      ...(retired ? { retired } : {}),
    })),
    ...(own.houseFacts ?? []).map(({ key, label, type, example }): Token => ({
      name: `house.${key}`,
      group: "house",
      label,
      type,
      example,
    })),
    ...(own.questions ?? []).flatMap(({ key, words, type, example }): Token[] => [
      { name: `ask.${key}`, group: "ask", label: words, type: "link", example: "https://www.example.com/q" },
      {
        name: `answer.${key}`,
        group: "answer",
        label: tokenWords("answerToWords", { words }),
        type,
        example,
      },
    ]),
  ];
  return new Map(all.map((token) => [token.name, token]));
}
