import { Migration } from "@mikro-orm/migrations";

/** How long colleagues were at a case; what customers are told of when a case changes, and what it came to. */
export class Migration00023Notices extends Migration {
  override up(): void {
    this.addSql(
      `create table "time_entries" ("id" serial primary key, "case_id" int not null, "person_id" int not null, "began_at" timestamptz not null, "last_at" timestamptz not null, "open_seconds" int not null default 0, "active_seconds" int not null default 0, "corrected_by_id" int null, "reason" text null)`,
    );
    this.addSql(
      `create index "time_entries_case_id_person_id_last_at_index" on "time_entries" ("case_id", "person_id", "last_at")`,
    );
    this.addSql(
      `create table "notices" ("id" serial primary key, "reply_id" int not null, "on" text check ("on" in ('state', 'topic', 'owner', 'promise')) not null, "into" text[] not null default '{}', "mailboxes" int[] not null default '{}', "channels" text[] not null default '{}', "way" text check ("way" in ('offered', 'queued')) not null, "minutes" int not null default 10, "position" int not null default 0)`,
    );
    this.addSql(
      `create table "case_notices" ("id" serial primary key, "case_id" int not null, "notice_id" int null, "reply_id" int not null, "person_id" int not null, "on" text check ("on" in ('state', 'topic', 'owner', 'promise')) not null, "change_id" int null, "state" text check ("state" in ('offered', 'queued', 'held', 'answered', 'declined', 'called back')) not null, "why" text null, "message_id" int null, "at" timestamptz not null)`,
    );
    this.addSql(`create index "case_notices_case_id_index" on "case_notices" ("case_id")`);
    this.addSql(`create index "case_notices_change_id_index" on "case_notices" ("change_id")`);
    this.addSql(`create index "case_notices_message_id_index" on "case_notices" ("message_id")`);
    for (const [table, column, other, deletion] of [
      ["time_entries", "case_id", "cases", " on delete cascade"],
      ["time_entries", "person_id", "people", ""],
      ["time_entries", "corrected_by_id", "people", " on delete set null"],
      ["notices", "reply_id", "replies", " on delete cascade"],
      ["case_notices", "case_id", "cases", " on delete cascade"],
      ["case_notices", "notice_id", "notices", " on delete set null"],
      ["case_notices", "reply_id", "replies", " on delete cascade"],
      ["case_notices", "person_id", "people", ""],
      ["case_notices", "change_id", "case_changes", " on delete set null"],
      ["case_notices", "message_id", "messages", " on delete set null"],
    ] as const)
      this.addSql(
        `alter table "${table}" add constraint "${table}_${column}_foreign" foreign key ("${column}") references "${other}" ("id") on update cascade${deletion}`,
      );
    this.addSql(`alter table "cases" add column "done" text null`);
    this.addSql(`alter table "house" add column "state_words" jsonb not null default '{}'`);
    this.addSql(`alter table "messages" drop constraint "messages_kind_check"`);
    this.addSql(
      `alter table "messages" add constraint "messages_kind_check" check ("kind" in ('message', 'automatic', 'list', 'failure', 'pressed', 'forwarded', 'notice'))`,
    );
    this.addSql(`alter table "case_events" drop constraint "case_events_kind_check"`);
    this.addSql(
      `alter table "case_events" add constraint "case_events_kind_check" check ("kind" in ('opened', 'received', 'queued', 'called back', 'sent', 'refused', 'tried again', 'set aside', 'reopened', 'address kept', 'handed over', 'arrived', 'begun', 'forwarded', 'joined', 'split', 'moved', 'message moved', 'undone', 'pressed', 'chat ended', 'state', 'assigned', 'topic', 'field', 'promise', 'notice', 'time'))`,
    );
  }
}
