import { Migrator } from "@mikro-orm/migrations";
import { defineConfig, MikroORM, type EntityManager, type Options } from "@mikro-orm/postgresql";
import { entities } from "./entities";
import { Migration00001Foundation } from "./migrations/00001-foundation";
import { Migration00002Keeping } from "./migrations/00002-keeping";
import { Migration00003Ranking } from "./migrations/00003-ranking";
import { Migration00004CalledBack } from "./migrations/00004-called-back";
import { Migration00005Finding } from "./migrations/00005-finding";
import { Migration00006Safety } from "./migrations/00006-safety";
import { Migration00007Settings } from "./migrations/00007-settings";
import { Migration00008People } from "./migrations/00008-people";
import { Migration00009Filing } from "./migrations/00009-filing";
import { Migration00010Decided } from "./migrations/00010-decided";
import { Migration00011Written } from "./migrations/00011-written";
import { Migration00012ShortMessages } from "./migrations/00012-short-messages";
import { Migration00013Chats } from "./migrations/00013-chats";
import { Migration00014Channels } from "./migrations/00014-channels";
import { Migration00015Forwarded } from "./migrations/00015-forwarded";
import { Migration00016TextsOfChannels } from "./migrations/00016-texts-of-channels";
import { Migration00017States } from "./migrations/00017-states";
import { Migration00018Record } from "./migrations/00018-record";
import { Migration00019Notes } from "./migrations/00019-notes";
import { Migration00020Fields } from "./migrations/00020-fields";
import { Migration00021Waits } from "./migrations/00021-waits";
import { Migration00022Promises } from "./migrations/00022-promises";
import { Migration00023Notices } from "./migrations/00023-notices";
import { Migration00024DetailSources } from "./migrations/00024-detail-sources";
import { Migration00025LettersByWriter } from "./migrations/00025-letters-by-writer";
import { Migration00026Standing } from "./migrations/00026-standing";
import { Migration00027StandingOccasions } from "./migrations/00027-standing-occasions";
import { query } from "./sql";

/** The migrations in their order. New ones are added at the end; landed ones are never edited. */
const migrations = [
  { name: "00001-foundation", class: Migration00001Foundation },
  { name: "00002-keeping", class: Migration00002Keeping },
  { name: "00003-ranking", class: Migration00003Ranking },
  { name: "00004-called-back", class: Migration00004CalledBack },
  { name: "00005-finding", class: Migration00005Finding },
  { name: "00006-safety", class: Migration00006Safety },
  { name: "00007-settings", class: Migration00007Settings },
  { name: "00008-people", class: Migration00008People },
  { name: "00009-filing", class: Migration00009Filing },
  { name: "00010-decided", class: Migration00010Decided },
  { name: "00011-written", class: Migration00011Written },
  { name: "00012-short-messages", class: Migration00012ShortMessages },
  { name: "00013-chats", class: Migration00013Chats },
  { name: "00014-channels", class: Migration00014Channels },
  { name: "00015-forwarded", class: Migration00015Forwarded },
  { name: "00016-texts-of-channels", class: Migration00016TextsOfChannels },
  { name: "00017-states", class: Migration00017States },
  { name: "00018-record", class: Migration00018Record },
  { name: "00019-notes", class: Migration00019Notes },
  { name: "00020-fields", class: Migration00020Fields },
  { name: "00021-waits", class: Migration00021Waits },
  { name: "00022-promises", class: Migration00022Promises },
  { name: "00023-notices", class: Migration00023Notices },
  { name: "00024-detail-sources", class: Migration00024DetailSources },
  { name: "00025-letters-by-writer", class: Migration00025LettersByWriter },
  { name: "00026-standing", class: Migration00026Standing },
  { name: "00027-standing-occasions", class: Migration00027StandingOccasions },
];

/** Configuration of the ORM for a database. @param url postgresql:// address */
function ormOptions(url: string): Options {
  return defineConfig({
    clientUrl: url,
    entities,
    extensions: [Migrator],
    discovery: { warnWhenNoEntities: false },
    migrations: {
      tableName: "schema_migrations",
      migrationsList: migrations,
      snapshot: false,
      silent: true,
    },
    // Counted by rate-limiter-flexible, and kept by triggers: not entities of ours.
    schemaGenerator: { skipTables: ["sign_in_limits", "search_words", "settings_version"] },
    pool: { min: 0, max: 10 },
    // Compiling a statement takes longer than any of ours runs.
    driverOptions: { connection: { options: "-c jit=off" } },
    forceUtcTimezone: true,
    ignoreUndefinedInQuery: false,
  });
}

let orm: Promise<MikroORM> | null = null;

/** Connects this process to its database, once. */
export function connect(url: string): Promise<MikroORM> {
  orm ??= MikroORM.init(ormOptions(url));
  return orm;
}

/** Closes this process's connection. */
export async function disconnect(): Promise<void> {
  const open = orm;
  orm = null;
  await (await open)?.close();
}

/** A fresh unit of work. @throws Error when `connect` was not called */
export async function entityManager(): Promise<EntityManager> {
  if (!orm) throw new Error("The database is not connected");
  return (await orm).em.fork();
}

/** Brings the schema up to date; several processes may ask at once. */
export async function migrate(connected: MikroORM): Promise<void> {
  // One process migrates; the others wait for it here and then find nothing to do.
  await connected.em.transactional(async (em) => {
    await query(em, "select pg_advisory_xact_lock(7421)");
    await connected.getMigrator().up();
  });
}
