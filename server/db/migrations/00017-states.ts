import { Migration } from "@mikro-orm/migrations";

const STATES = `'new', 'open', 'waiting on the customer', 'waiting on a colleague', 'settled', 'set aside'`;

/**
 * States of cases and the time that they were in each; answer-by times over business hours; senders of junk; the case that
 * another follows.
 */
export class Migration00017States extends Migration {
  override up(): void {
    const key = (table: string, column: string, of: string, deletion: string) =>
      this.addSql(
        `alter table "${table}" add constraint "${table}_${column}_foreign" foreign key ("${column}") references "${of}" ("id") on update cascade on delete ${deletion}`,
      );
    this.addSql(`alter table "cases" drop constraint "cases_status_check"`);
    this.addSql(`
      update "cases" c set "status" = case "status"
        when 'waiting for us' then case when "assignee_id" is not null or exists (
          select 1 from "messages" m where m."case_id" = c."id" and m."direction" = 'out' and m."state" <> 'called back') then 'open' else 'new' end
        when 'waiting for the customer' then 'waiting on the customer'
        when 'closed' then 'settled'
        else "status" end`);
    this.addSql(
      `alter table "cases" add constraint "cases_status_check" check ("status" in (${STATES})), add column "aside_as" text check ("aside_as" in ('nothing to answer', 'junk or fraud')) null, add column "state_reason" text null, add column "follows_id" int null`,
    );
    this.addSql(`update "cases" set "aside_as" = 'nothing to answer' where "status" = 'set aside'`);
    key("cases", "follows_id", "cases", "set null");
    this.addSql(
      `create index "cases_ours" on "cases" ("answer_by") where "status" in ('new', 'open', 'waiting on a colleague')`,
    );

    // Whoever sets a state, and wherever: since when a case is in it is kept.
    this.addSql(
      `create table "case_states" ("id" serial primary key, "case_id" int not null, "status" text check ("status" in (${STATES})) not null, "at" timestamptz not null)`,
    );
    this.addSql(`create index "case_states_case_id_index" on "case_states" ("case_id")`);
    key("case_states", "case_id", "cases", "cascade");
    this.addSql(
      `insert into "case_states" ("case_id", "status", "at") select "id", "status", "updated_at" from "cases"`,
    );
    this.addSql(`
      create function keep_state_of_case() returns trigger language plpgsql as $$
      begin
        insert into case_states (case_id, status, at) values (new.id, new.status, new.updated_at);
        return null;
      end $$`);
    this.addSql(
      `create trigger keep_first_state_of_case after insert on "cases" for each row execute function keep_state_of_case()`,
    );
    this.addSql(
      `create trigger keep_state_of_case after update on "cases" for each row when (old.status is distinct from new.status) execute function keep_state_of_case()`,
    );

    this.addSql(
      `create table "calendars" ("id" serial primary key, "name" text not null, "time_zone" text not null, "hours" jsonb not null, "holidays" jsonb not null default '[]', "country" varchar(2) null, "region" text null)`,
    );
    this.addSql(`alter table "calendars" add constraint "calendars_name_unique" unique ("name")`);
    this.addSql(
      `create table "answer_times" ("id" serial primary key, "position" int not null, "channels" text[] not null default '{}', "mailboxes" int[] not null default '{}', "topics" text[] not null default '{}', "standings" text[] not null default '{}', "first_within" int not null, "next_within" int not null, "calendar_id" int null)`,
    );
    key("answer_times", "calendar_id", "calendars", "set null");
    this.addSql(
      `alter table "house" add column "calendar_id" int null, add column "reopen_days" int not null default 30`,
    );
    key("house", "calendar_id", "calendars", "set null");
    for (const table of ["calendars", "answer_times"])
      this.addSql(
        `create trigger count_change_of_settings after insert or update or delete or truncate on "${table}" for each statement execute function count_change_of_settings()`,
      );

    this.addSql(
      `create table "junk_senders" ("id" serial primary key, "address" text not null, "person_id" int null, "case_id" int null, "at" timestamptz not null)`,
    );
    this.addSql(`alter table "junk_senders" add constraint "junk_senders_address_unique" unique ("address")`);
    this.addSql(`create index "junk_senders_case_id_index" on "junk_senders" ("case_id")`);
    key("junk_senders", "person_id", "people", "set null");
    key("junk_senders", "case_id", "cases", "set null");

    this.addSql(`alter table "case_changes" drop constraint "case_changes_kind_check"`);
    this.addSql(
      `alter table "case_changes" add constraint "case_changes_kind_check" check ("kind" in ('joined', 'split', 'moved', 'message moved', 'state', 'assigned'))`,
    );
    this.addSql(`alter table "case_events" drop constraint "case_events_kind_check"`);
    this.addSql(
      `alter table "case_events" add constraint "case_events_kind_check" check ("kind" in ('opened', 'received', 'queued', 'called back', 'sent', 'refused', 'tried again', 'set aside', 'reopened', 'address kept', 'handed over', 'arrived', 'begun', 'forwarded', 'joined', 'split', 'moved', 'message moved', 'undone', 'pressed', 'chat ended', 'state', 'assigned'))`,
    );
  }
}
