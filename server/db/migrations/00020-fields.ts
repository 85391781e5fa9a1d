import { Migration } from "@mikro-orm/migrations";

/** Fields of customers, organisations and colleagues beside those of cases; by topic, required, retired. What was lacking when letters were stopped. */
export class Migration00020Fields extends Migration {
  override up(): void {
    this.addSql(`alter table "case_fields" rename to "fields"`);
    this.addSql(`alter table "fields" rename constraint "case_fields_pkey" to "fields_pkey"`);
    this.addSql(`alter sequence "case_fields_id_seq" rename to "fields_id_seq"`);
    this.addSql(`alter table "fields" drop constraint "case_fields_key_unique"`);
    this.addSql(`alter table "fields" drop constraint "case_fields_type_check"`);
    this.addSql(
      `alter table "fields" add constraint "fields_type_check" check ("type" in ('text', 'long_text', 'integer', 'number', 'money', 'date', 'time', 'datetime', 'yes_no', 'link', 'language', 'choice'))`,
    );
    this.addSql(
      `alter table "fields" add column "of" text check ("of" in ('case', 'customer', 'organisation', 'agent')) not null default 'case', add column "options" text[] not null default '{}', add column "topics" text[] not null default '{}', add column "required" boolean not null default false, add column "retired_at" timestamptz null`,
    );
    this.addSql(`alter table "fields" add constraint "fields_of_key_unique" unique ("of", "key")`);
    for (const table of ["customers", "organisations", "people"])
      this.addSql(`alter table "${table}" add column "details" jsonb not null default '{}'`);
    this.addSql(`alter table "case_events" drop constraint "case_events_kind_check"`);
    this.addSql(
      `alter table "case_events" add constraint "case_events_kind_check" check ("kind" in ('opened', 'received', 'queued', 'called back', 'sent', 'refused', 'tried again', 'set aside', 'reopened', 'address kept', 'handed over', 'arrived', 'begun', 'forwarded', 'joined', 'split', 'moved', 'message moved', 'undone', 'pressed', 'chat ended', 'state', 'assigned', 'topic', 'field'))`,
    );
    this.addSql(
      `create table "lacking_values" ("id" serial primary key, "case_id" int not null, "person_id" int not null, "name" text not null, "at" timestamptz not null)`,
    );
    this.addSql(
      `alter table "lacking_values" add constraint "lacking_values_case_id_foreign" foreign key ("case_id") references "cases" ("id") on update cascade on delete cascade`,
    );
    this.addSql(
      `alter table "lacking_values" add constraint "lacking_values_person_id_foreign" foreign key ("person_id") references "people" ("id") on update cascade on delete cascade`,
    );
    this.addSql(
      `alter table "lacking_values" add constraint "lacking_values_case_id_person_id_name_unique" unique ("case_id", "person_id", "name")`,
    );
    this.addSql(`create index "lacking_values_name_at_index" on "lacking_values" ("name", "at")`);
  }
}
