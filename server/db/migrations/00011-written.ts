import { Migration } from "@mikro-orm/migrations";

/** What the house says of itself may be written in each of its languages: in which it is, and how it reads in others. */
export class Migration00011Written extends Migration {
  override up(): void {
    this.addSql(`alter table "house_facts" add column "language" text null`);
    this.addSql(`alter table "house_fact_values" add column "texts" jsonb not null default '{}'`);
    this.addSql(
      `alter table "signatures" add column "language" text not null default 'en', add column "texts" jsonb not null default '{}'`,
    );
    this.addSql(
      `alter table "stationery" add column "language" text not null default 'en', add column "texts" jsonb not null default '{}'`,
    );
    this.addSql(
      `alter table "teams" add column "language" text not null default 'en', add column "names" jsonb not null default '{}'`,
    );
    // What was written so far is in the language that the house writes in first.
    for (const table of ["signatures", "stationery", "teams"])
      this.addSql(`update "${table}" set "language" = h.languages[1] from house h`);
    this.addSql(
      `update "house_facts" f set "language" = h.languages[1] from house h where f.type in ('text', 'long_text', 'link')`,
    );
  }
}
