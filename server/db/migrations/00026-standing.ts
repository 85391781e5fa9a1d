import { Migration } from "@mikro-orm/migrations";

/** Standing answers: rules that answer by themselves, what they did, and what they are tried on. */
export class Migration00026Standing extends Migration {
  override up(): void {
    this.addSql(
      `create table "standing_rules" ("id" serial primary key, "name" text not null, "reply_id" int not null, "channels" text[] not null default '{}', "mailboxes" int[] not null default '{}', "when" jsonb null, "mode" text check ("mode" in ('send', 'prepare')) not null default 'prepare', "switched_on_at" timestamptz null, "switched_on_by_id" int null, "off_why" text null, "once_per_sender_hours" int not null default 24, "per_hour" int not null default 60, "stop" boolean not null default true, "delay_minutes" int not null default 0, "until" timestamptz null, "rehearsed" jsonb null, "position" int not null default 0)`,
    );
    this.addSql(
      `create table "standing_done" ("id" serial primary key, "rule_id" int not null, "message_id" int not null, "case_id" int not null, "sender" text not null, "does" text check ("does" in ('send', 'prepare', 'instead', 'held')) not null, "why" text not null, "at" timestamptz not null)`,
    );
    this.addSql(
      `alter table "standing_done" add constraint "standing_done_rule_id_message_id_unique" unique ("rule_id", "message_id")`,
    );
    this.addSql(`create index "standing_done_rule_id_at_index" on "standing_done" ("rule_id", "at")`);
    this.addSql(
      `create index "standing_done_rule_id_sender_at_index" on "standing_done" ("rule_id", "sender", "at")`,
    );
    this.addSql(`create index "standing_done_message_id_index" on "standing_done" ("message_id")`);
    this.addSql(`create index "standing_done_case_id_index" on "standing_done" ("case_id")`);
    this.addSql(
      `create table "standing_marks" ("id" serial primary key, "rule_id" int not null, "message_id" int not null, "should" boolean not null, "person_id" int not null, "at" timestamptz not null)`,
    );
    this.addSql(
      `alter table "standing_marks" add constraint "standing_marks_rule_id_message_id_unique" unique ("rule_id", "message_id")`,
    );
    this.addSql(`alter table "case_notices" add column "done_id" int null`);
    this.addSql(`create index "case_notices_done_id_index" on "case_notices" ("done_id")`);
    this.addSql(`alter table "case_notices" drop constraint "case_notices_on_check"`);
    this.addSql(
      `alter table "case_notices" add constraint "case_notices_on_check" check ("on" in ('state', 'topic', 'owner', 'promise', 'arrival'))`,
    );
    for (const [table, column, other, deletion] of [
      ["standing_rules", "reply_id", "replies", " on delete cascade"],
      ["standing_rules", "switched_on_by_id", "people", " on delete set null"],
      ["standing_done", "rule_id", "standing_rules", " on delete cascade"],
      ["standing_done", "message_id", "messages", " on delete cascade"],
      ["standing_done", "case_id", "cases", " on delete cascade"],
      ["standing_marks", "rule_id", "standing_rules", " on delete cascade"],
      ["standing_marks", "message_id", "messages", " on delete cascade"],
      ["standing_marks", "person_id", "people", ""],
      ["case_notices", "done_id", "standing_done", " on delete set null"],
    ] as const)
      this.addSql(
        `alter table "${table}" add constraint "${table}_${column}_foreign" foreign key ("${column}") references "${other}" ("id") on update cascade${deletion}`,
      );
    // What rules read of a message that came by mail, beside what is kept of it: whom to answer, and whether to.
    this.addSql(`alter table "messages" add column "envelope" jsonb null`);
  }
}
