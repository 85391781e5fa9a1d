import { Migration } from "@mikro-orm/migrations";

/**
 * Every channel, both ways: mailboxes beside the teams' own, several recipients, kinds of messages, contact forms,
 * forwarders, questions with fixed answers, cases joined, split and moved.
 */
export class Migration00014Channels extends Migration {
  override up(): void {
    this.addSql(
      `create table "mailboxes" ("id" serial primary key, "address" text not null, "name" text not null, "team_id" int not null, "stationery_id" int null, "opening_id" int null, "closing_id" int null, "quotes" boolean not null default false)`,
    );
    this.addSql(`alter table "mailboxes" add constraint "mailboxes_address_unique" unique ("address")`);
    const key = (table: string, column: string, of: string, deletion: string) =>
      this.addSql(
        `alter table "${table}" add constraint "${table}_${column}_foreign" foreign key ("${column}") references "${of}" ("id") on update cascade on delete ${deletion}`,
      );
    key("mailboxes", "team_id", "teams", "cascade");
    key("mailboxes", "stationery_id", "stationery", "set null");
    key("mailboxes", "opening_id", "replies", "set null");
    key("mailboxes", "closing_id", "replies", "set null");
    // A team's own address is a mailbox like any other: where it changes, the mailbox does.
    this.addSql(`
      create function keep_mailbox_of_team() returns trigger language plpgsql as $$
      begin
        if tg_op = 'UPDATE' and new.mailbox <> old.mailbox then
          update mailboxes set address = new.mailbox where address = old.mailbox;
        end if;
        insert into mailboxes (address, name, team_id) values (new.mailbox, new.name, new.id) on conflict (address) do nothing;
        return null;
      end $$`);
    this.addSql(
      `insert into "mailboxes" ("address", "name", "team_id") select "mailbox", "name", "id" from "teams"`,
    );
    this.addSql(
      `create trigger keep_mailbox_of_team after insert or update of "mailbox" on "teams" for each row execute function keep_mailbox_of_team()`,
    );
    this.addSql(`alter table "cases" add column "mailbox_id" int null, add column "joined_to_id" int null`);
    key("cases", "mailbox_id", "mailboxes", "set null");
    key("cases", "joined_to_id", "cases", "set null");
    this.addSql(
      `alter table "messages" add column "kind" text check ("kind" in ('message', 'automatic', 'list', 'failure', 'pressed')) not null default 'message', add column "copies" jsonb null, add column "parts" jsonb null`,
    );
    this.addSql(
      `alter table "drafts" add column "copies" jsonb null, add column "forwards_id" int null, add column "with_files" boolean not null default true`,
    );
    key("drafts", "forwards_id", "messages", "set null");
    this.addSql(
      `create table "case_changes" ("id" serial primary key, "kind" text check ("kind" in ('joined', 'split', 'moved', 'message moved')) not null, "person_id" int not null, "case_id" int not null, "data" jsonb not null, "at" timestamptz not null, "undone_at" timestamptz null)`,
    );
    this.addSql(`create index "case_changes_case_id_index" on "case_changes" ("case_id")`);
    key("case_changes", "person_id", "people", "cascade");
    key("case_changes", "case_id", "cases", "cascade");
    this.addSql(
      `create table "contact_forms" ("id" serial primary key, "key" text not null, "title" text not null, "intro" text not null default '', "team_id" int not null, "topics" text[] not null default '{}', "fields" jsonb not null default '[]', "asks_booking" boolean not null default true, "takes_files" boolean not null default true, "thanks" text not null, "first_mail" text null, "is_on" boolean not null default true)`,
    );
    this.addSql(`alter table "contact_forms" add constraint "contact_forms_key_unique" unique ("key")`);
    key("contact_forms", "team_id", "teams", "cascade");
    this.addSql(
      `create table "forwarders" ("id" serial primary key, "name" text not null, "mailbox_id" int not null, "sender" text not null, "example" text not null, "marks" jsonb not null, "rules" jsonb not null, "is_on" boolean not null default false)`,
    );
    key("forwarders", "mailbox_id", "mailboxes", "cascade");
    this.addSql(`alter table "cases" add column "forwarder_id" int null, add column "forwarded" jsonb null`);
    key("cases", "forwarder_id", "forwarders", "set null");
    this.addSql(
      `create table "questions" ("id" serial primary key, "key" text not null, "words" text not null, "kind" text check ("kind" in ('scale', 'choice', 'date', 'yes_no')) not null, "options" text[] not null default '{}', "takes_remark" boolean not null default false, "days" int not null default 30, "sets_status" text null, "sets_topic" text null)`,
    );
    this.addSql(`alter table "questions" add constraint "questions_key_unique" unique ("key")`);
    this.addSql(
      `create table "asked_questions" ("id" serial primary key, "question_id" int not null, "case_id" int not null, "message_id" int null, "token_hash" varchar(64) not null, "expires_at" timestamptz not null, "answered_at" timestamptz null, "answer" jsonb null, "remark" text null)`,
    );
    this.addSql(
      `alter table "asked_questions" add constraint "asked_questions_token_hash_unique" unique ("token_hash")`,
    );
    this.addSql(`create index "asked_questions_case_id_index" on "asked_questions" ("case_id")`);
    key("asked_questions", "question_id", "questions", "cascade");
    key("asked_questions", "case_id", "cases", "cascade");
    key("asked_questions", "message_id", "messages", "cascade");
    for (const table of ["mailboxes", "contact_forms", "forwarders", "questions"])
      this.addSql(
        `create trigger count_change_of_settings after insert or update or delete or truncate on "${table}" for each statement execute function count_change_of_settings()`,
      );
  }
}
