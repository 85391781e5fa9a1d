import { Migration } from "@mikro-orm/migrations";

/** What the house sets counts its changes, so that pages need not read all of it anew (`house/settings.ts`). */
export class Migration00007Settings extends Migration {
  override up(): void {
    this.addSql(
      `create table "settings_version" ("id" int primary key check ("id" = 1), "version" bigint not null)`,
    );
    this.addSql(`insert into "settings_version" values (1, 1)`);
    // A row and not a sequence: a change is counted when it can be read, and not before.
    this.addSql(`
      create function count_change_of_settings() returns trigger language plpgsql as $$
      begin
        update settings_version set version = version + 1;
        return null;
      end $$`);
    for (const table of [
      "house",
      "case_fields",
      "house_facts",
      "house_fact_values",
      "signatures",
      "stationery",
      "teams",
      "usual_replies",
    ]) {
      this.addSql(
        `create trigger count_change_of_settings after insert or update or delete or truncate on "${table}" for each statement execute function count_change_of_settings()`,
      );
    }
  }
}
