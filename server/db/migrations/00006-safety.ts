import { Migration } from "@mikro-orm/migrations";

/** Who a message really came from, where an answer may go, whose save is the later one, and indexes for what is listed most. */
export class Migration00006Safety extends Migration {
  override up(): void {
    // A Message-ID is the sender's to choose: two senders may choose the same.
    this.addSql(`alter table "messages" drop constraint "messages_message_id_unique"`);
    this.addSql(`create index "messages_message_id_index" on "messages" ("message_id")`);
    this.addSql(
      `alter table "messages" add column "reply_to" text null, add column "doubts" jsonb null, add column "cut" boolean not null default false`,
    );
    this.addSql(
      `alter table "drafts" add column "to_address" text null, add column "to_confirmed" boolean not null default false, add column "writer" text null, add column "sequence" int not null default 0`,
    );
    this.addSql(`alter table "case_events" drop constraint "case_events_kind_check"`);
    this.addSql(
      `alter table "case_events" add constraint "case_events_kind_check" check ("kind" in ('opened', 'received', 'queued', 'called back', 'sent', 'refused', 'tried again', 'set aside', 'reopened', 'address kept'))`,
    );
    this.addSql(
      `alter table "sessions" add column "browser" text null, add column "address" text null, add column "seen_at" timestamptz not null default now()`,
    );
    this.addSql(`create index "sessions_person_id_index" on "sessions" ("person_id")`);
    this.addSql(`create index "sent_letters_created_at_index" on "sent_letters" ("created_at")`);
    this.addSql(`create index "sent_letters_person_id_index" on "sent_letters" ("person_id")`);
    this.addSql(`create index "reply_attachments_file_id_index" on "reply_attachments" ("file_id")`);
    this.addSql(`create index "attachments_file_id_index" on "attachments" ("file_id")`);
    this.addSql(`create index "cases_topic_index" on "cases" ("topic")`);
    this.addSql(`create index "cases_team_id_status_index" on "cases" ("team_id", "status")`);
    this.addSql(`drop index "cases_team_id_index"`);
  }
}
