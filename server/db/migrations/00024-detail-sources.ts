import { Migration } from "@mikro-orm/migrations";

/** Outside systems that are asked, as a lead set them; what was built in before is one of them. */
export class Migration00024DetailSources extends Migration {
  override up(): void {
    this.addSql(
      `create table "detail_sources" ("id" serial primary key, "key" text not null, "name" text not null, "address" text not null, "headers" jsonb not null default '[]', "pattern" text null, "timeout_seconds" int not null default 4, "cache_minutes" int not null default 60, "position" int not null default 0)`,
    );
    this.addSql(`alter table "detail_sources" add constraint "detail_sources_key_unique" unique ("key")`);
    this.addSql(`alter table "detail_fields" add column "source_id" int null, add column "path" text null`);
    // What the address is, only the program knows: it is set when it starts with its simulated outside.
    this.addSql(
      `insert into "detail_sources" ("key", "name", "address", "pattern") select 'bookings', 'The booking system', 'http://127.0.0.1:0/bookings/{reference}', '\\b([A-Z][0-9][A-Z0-9]-[A-Z0-9]{3}|[A-Z]{2}[0-9]-[A-Z0-9]{3}|[A-Z]{3}-[0-9][A-Z0-9]{2}|[A-Z]{3}-[A-Z][0-9][A-Z0-9]|[A-Z]{3}-[A-Z]{2}[0-9]|[0-9][A-Z][A-Z0-9]-[A-Z0-9]{3}|[0-9]{2}[A-Z]-[A-Z0-9]{3}|[0-9]{3}-[A-Z][A-Z0-9]{2}|[0-9]{3}-[0-9][A-Z][A-Z0-9]|[0-9]{3}-[0-9]{2}[A-Z])\\b' where exists (select 1 from "detail_fields")`,
    );
    this.addSql(
      `update "detail_fields" set "source_id" = (select "id" from "detail_sources" where "key" = 'bookings'), "path" = '$.' || "key"`,
    );
    this.addSql(
      `alter table "detail_fields" alter column "source_id" set not null, alter column "path" set not null`,
    );
    this.addSql(
      `alter table "detail_fields" add constraint "detail_fields_source_id_foreign" foreign key ("source_id") references "detail_sources" ("id") on update cascade on delete cascade`,
    );
    this.addSql(`alter table "detail_fields" drop constraint "detail_fields_key_unique"`);
    this.addSql(
      `alter table "detail_fields" add constraint "detail_fields_source_id_key_unique" unique ("source_id", "key")`,
    );
    this.addSql(`alter table "case_lookups" alter column "fetched_at" drop not null`);
    this.addSql(`alter table "case_lookups" add column "read_at" timestamptz null`);
    this.addSql(`update "case_lookups" set "read_at" = "fetched_at" where "data" is not null`);
    this.addSql(
      `create trigger count_change_of_settings after insert or update or delete or truncate on "detail_sources" for each statement execute function count_change_of_settings()`,
    );
  }
}
