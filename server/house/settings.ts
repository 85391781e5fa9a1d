import type { AnswerTime } from "#core/clock/answer-times";
import { noHolidays, publicHolidays } from "#core/clock/holidays";
import { OpenHours } from "#core/clock/open-hours";
import { weekdays } from "#core/clock/calendar";
import type { EntityManager } from "@mikro-orm/postgresql";
import type { Part } from "#core/compose/slip";
import type { Stationery as CoreStationery } from "#core/compose/stationery";
import type { Doc } from "#core/document/types";
import { isWorded } from "#core/forms/house";
import type { DetailToken, FieldToken, OwnToken, QuestionToken } from "#core/tokens/catalogue";
import type { Context, Detail } from "#core/tokens/context";
import type { StateWords } from "#core/notices/state-words";
import type { Written } from "#core/language/written";
import { AnswerTime as AnswerTimeEntity, Calendar } from "../db/entities/calendars";
import { DetailField, DetailSource, Field } from "../db/entities/cases";
import { Signature, Stationery, UsualReply } from "../db/entities/library";
import { answerType, type QuestionKind } from "#core/questions/question";
import { Mailbox, Question } from "../db/entities/mailboxes";
import { House, PhoneNumber, Team } from "../db/entities/people";
import { prepared, preparedOne } from "../db/sql";
import { signatureFrom } from "./signatures";
import { stationeryFrom } from "./stationery";
import { namesOf } from "./team-names";

/** What the house set for itself, as pages and letters read it. To change it, its entities are read. */
export interface Settings {
  house: Pick<House, "name" | "casePrefix" | "timeZone" | "language">;
  /** All languages that the house writes in, the first one first. */
  languages: string[];
  clock: Clock;
  /** What states are called to customers, where the house says so. */
  stateWords: StateWords;
  /** The names of teams, by team. */
  teams: Map<number, Written<string>>;
  fields: FieldToken[];
  /** What outside systems tell of a case. */
  details: DetailToken[];
  /** Outside systems that are asked; the pattern finds their references in messages. */
  sources: { key: string; name: string; pattern: string | null; cacheMinutes: number }[];
  /** Every value that a house fact had or will have, the latest first. */
  facts: FactValue[];
  /** Addresses of our own, in lower case. */
  mailboxes: Set<string>;
  /** What mailboxes have of their own, by mailbox; null for what their team has. */
  ofMailbox: Map<
    number,
    { opening: string | null; closing: string | null; stationery: CoreStationery | null; quotes: boolean }
  >;
  /** Sites whose pages may hold our chat and contact form, by their origins. */
  embedOrigins: string[];
  /** Questions with fixed answers, by their words. */
  questions: {
    id: number;
    key: string;
    words: string;
    kind: QuestionKind;
    options: string[];
    days: number;
  }[];
  /** Numbers of our own that short messages come to and go from, the first of a team first. */
  numbers: { number: string; team: number }[];
  /** Signatures that teams impose, by team, and people's own, by person. */
  signatures: { ofTeam: Map<number, Written<Doc>>; ofPerson: Map<number, Written<Doc>> };
  /** By team. */
  stationery: Map<number, CoreStationery>;
  /** Keys of the openings and closings that are usual. */
  usual: { team: number; channel: string; part: Part; key: string }[];
}

/** By what answers are due. */
interface Clock {
  /** In the order in which they are tried. */
  answerTimes: AnswerTime[];
  /** Open hours by calendar. */
  hours: Map<number, OpenHours>;
  /** The calendar where no answer time says which; null for all hours of all days. */
  calendar: number | null;
  /** Minutes within which a team answers where no answer time fits, by team. */
  ofTeam: Map<number, number>;
  /** So many days after it was settled, a case is opened again by its customer. */
  reopenDays: number;
}

interface FactValue {
  key: string;
  label: string;
  type: OwnToken["type"];
  from: Date;
  value: Detail;
  /** Of the value; null where it reads the same in every language. */
  language: string | null;
  /** The same in other languages. */
  texts: Record<string, string>;
}

interface Kept {
  version: string;
  settings: Settings;
}

/** By database: one process may know several, one after the other. */
const known = new WeakMap<object, Kept>();

/**
 * The house's settings as they are now: read anew only after something of them was changed, by whatever process.
 * Shared by all who ask: not to be changed.
 * @throws Error when the database was never seeded
 */
export async function settingsOf(em: EntityManager): Promise<Settings> {
  // Read before the settings: what changes meanwhile is read once more, never missed.
  const { version } = await preparedOne<{ version: string }>(em, "select version from settings_version");
  const database = em.getConnection();
  const kept = known.get(database);
  if (kept?.version === version) return kept.settings;
  const settings = await readSettings(em);
  // What a transaction sees of its own may never come to be.
  if (!em.isInTransaction()) known.set(database, { version, settings });
  return settings;
}

async function readSettings(em: EntityManager): Promise<Settings> {
  const inner = em.fork({ keepTransactionContext: true });
  const house = await inner.findOneOrFail(House, { id: 1 });
  const fields = await inner.find(Field, {}, { orderBy: { position: "asc", key: "asc" } });
  const sources = await inner.find(DetailSource, {}, { orderBy: { position: "asc", id: "asc" } });
  const details = await inner.find(
    DetailField,
    {},
    { orderBy: { source: { position: "asc" }, position: "asc", key: "asc" }, populate: ["source"] },
  );
  const facts = await prepared<Omit<FactValue, "from"> & { from: string }>(
    inner,
    `select f.key, f.label, f.type, f.language, v.valid_from as from, v.value, v.texts from house_facts f join house_fact_values v on v.fact_id = f.id
      order by f.key, v.valid_from desc`,
  );
  const teams = await inner.find(Team, {});
  const mailboxes = await inner.find(Mailbox, {}, { populate: ["opening", "closing"] });
  const numbers = await inner.find(PhoneNumber, {}, { orderBy: { id: "asc" } });
  const questions = await inner.find(Question, {}, { orderBy: { words: "asc", id: "asc" } });
  const signatures = await inner.find(Signature, {});
  const papers = await inner.find(Stationery, {}, { populate: ["logo"] });
  const usual = await inner.find(UsualReply, {}, { populate: ["reply"] });
  const answerTimes = await inner.find(AnswerTimeEntity, {}, { orderBy: { position: "asc", id: "asc" } });
  const calendars = await inner.find(Calendar, {});
  const { name, casePrefix, timeZone, language, languages } = house;
  return {
    house: { name, casePrefix, timeZone, language },
    languages,
    stateWords: house.stateWords,
    clock: {
      answerTimes: answerTimes.map(({ calendar, position: _, ...one }) => ({
        ...one,
        calendar: calendar?.id ?? null,
      })),
      hours: new Map(calendars.map((one) => [one.id, openHoursOf(one)])),
      calendar: house.calendar?.id ?? null,
      ofTeam: new Map(teams.map((team) => [team.id, team.answerWithin])),
      reopenDays: house.reopenDays,
    },
    teams: new Map(teams.map((team) => [team.id, namesOf(team)])),
    fields: fields.map(({ of, key, label, type, example, topics, required, retiredAt }) => ({
      ...{ of, key, label, example, topics, required },
      type: type === "choice" ? "text" : type,
      retired: retiredAt != null,
    })),
    sources: sources.map(({ key, name, pattern, cacheMinutes }) => ({
      ...{ key, name, cacheMinutes, pattern: pattern ?? null },
    })),
    details: details.map(({ source, key, label, type, example, always, ordinary, short, usual }) => ({
      ...{ source: source.key, key, label, type, example, always, ordinary },
      short: short ?? null,
      usual: usual ?? null,
    })),
    facts: facts.map((one) => ({ ...one, from: new Date(one.from) })),
    mailboxes: new Set(mailboxes.map((one) => one.address.toLowerCase())),
    ofMailbox: new Map(
      mailboxes.map(({ id, opening, closing, stationery, quotes }) => {
        const paper = stationery == null ? undefined : papers.find((one) => one.id === stationery.id);
        const own = { opening: opening?.key ?? null, closing: closing?.key ?? null, quotes };
        return [id, { ...own, stationery: paper ? stationeryFrom(paper) : null }];
      }),
    ),
    embedOrigins: house.embedOrigins,
    questions: questions.map(({ id, key, words, kind, options, days }) => ({
      ...{ id, key, words, kind, options, days },
    })),
    numbers: numbers.map(({ number, team }) => ({ number, team: team.id })),
    signatures: {
      ofTeam: new Map(signatures.flatMap((one) => (one.team ? [[one.team.id, signatureFrom(one)]] : []))),
      ofPerson: new Map(
        signatures.flatMap((one) => (one.person ? [[one.person.id, signatureFrom(one)]] : [])),
      ),
    },
    stationery: new Map(papers.map((paper) => [paper.team.id, stationeryFrom(paper)])),
    usual: usual.map(({ team, channel, part, reply }) => ({ team: team.id, channel, part, key: reply.key })),
  };
}

/** When somebody is there: by the house’s own calendar, else by the first that there is, else always. */
export function officeHours({ hours, calendar }: Settings["clock"]): OpenHours {
  return (calendar === null ? [...hours.values()][0] : hours.get(calendar)) ?? ALWAYS_OPEN;
}

/** Open hours as a calendar has them. */
export function openHoursOf(
  calendar: Pick<Calendar, "timeZone" | "hours" | "holidays" | "country" | "region">,
): OpenHours {
  const { timeZone, hours, holidays, country, region } = calendar;
  const known = country == null ? null : publicHolidays(country, region ?? undefined);
  return new OpenHours({ time_zone: timeZone, hours, holidays }, known?.ok ? known.of : noHolidays);
}

/** All hours of all days. */
export const ALWAYS_OPEN = new OpenHours(
  {
    time_zone: "UTC",
    hours: Object.fromEntries(weekdays.map((day) => [day, [["00:00", "24:00"]]])),
    holidays: [],
  },
  noHolidays,
);

/** What letters of a team print of its name, as `agent.team`. */
export function teamDetails(
  settings: Settings,
  team: number,
): Pick<Context, "written"> & { name: string | null } {
  const name = settings.teams.get(team);
  if (!name) return { name: null, written: {} };
  return {
    name: name.text,
    written: { "agent.team": { language: name.language, others: { ...name.others } } },
  };
}

/** The stationery that letters of a team carry; null for none. */
export async function stationeryOf(em: EntityManager, teamId: number): Promise<CoreStationery | null> {
  return (await settingsOf(em)).stationery.get(teamId) ?? null;
}

/** What the house defined for itself, as tokens, and the facts' values that hold now. */
export interface OwnTokens {
  fields: FieldToken[];
  houseFacts: OwnToken[];
  details: DetailToken[];
  questions: QuestionToken[];
  facts: Record<string, Detail>;
  /** The languages of those facts that are words, by the names of their tokens. */
  written: Context["written"];
}

/** Answers to look at. */
const EXAMPLES: Partial<Record<QuestionKind, Detail>> = { scale: 4, date: "2027-03-01", yes_no: true };

/** Case fields and house facts. @param now decides which value of a fact holds */
export function ownTokensOf({ fields, details, facts, questions }: Settings, now: Date): OwnTokens {
  const latest = new Map<string, Settings["facts"][number]>();
  for (const one of facts) if (one.from <= now && !latest.has(one.key)) latest.set(one.key, one);
  const holding = [...latest.values()];
  return {
    fields,
    details,
    questions: questions.map(({ key, words, kind, options }) => ({
      ...{ key, words, type: answerType(kind) },
      example: EXAMPLES[kind] ?? options[0] ?? "",
    })),
    houseFacts: holding.map(({ key, label, type, value }) => ({ key, label, type, example: value })),
    facts: Object.fromEntries(holding.map(({ key, value }) => [key, value])),
    written: Object.fromEntries(
      holding
        .filter(({ type }) => isWorded(type))
        .map(({ key, language, texts }) => [`house.${key}`, { language, others: texts }]),
    ),
  };
}

/** The same, read. */
export async function ownTokens(em: EntityManager, now: Date): Promise<OwnTokens> {
  return ownTokensOf(await settingsOf(em), now);
}
