import { Migration } from "@mikro-orm/migrations";

/** The first schema: people, customers, cases and messages, the library, answers under way and sent letters. */
export class Migration00001Foundation extends Migration {
  override up(): void {
    this.addSql("create extension if not exists pg_trgm");
    this.addSql("create sequence case_numbers start with 20001");
    // Counted by rate-limiter-flexible, which wants this shape.
    this.addSql(
      "create table sign_in_limits (key varchar(255) primary key, points integer not null default 0, expire bigint)",
    );
    this.addSql(
      `create table "case_fields" ("id" serial primary key, "key" text not null, "label" text not null, "type" text check ("type" in ('text', 'long_text', 'integer', 'number', 'money', 'date', 'time', 'datetime', 'yes_no', 'link', 'language')) not null, "example" jsonb not null, "position" int not null default 0)`,
    );
    this.addSql(`alter table "case_fields" add constraint "case_fields_key_unique" unique ("key")`);
    this.addSql(
      `create table "heartbeats" ("name" text not null, "beat_at" timestamptz not null, constraint "heartbeats_pkey" primary key ("name"))`,
    );
    this.addSql(
      `create table "house" ("id" serial primary key, "name" text not null, "case_prefix" varchar(6) not null, "time_zone" text not null, "language" text not null)`,
    );
    this.addSql(
      `create table "house_facts" ("id" serial primary key, "key" text not null, "label" text not null, "type" text check ("type" in ('text', 'long_text', 'money', 'date', 'link', 'number')) not null)`,
    );
    this.addSql(`alter table "house_facts" add constraint "house_facts_key_unique" unique ("key")`);
    this.addSql(
      `create table "organisations" ("id" serial primary key, "name" text not null, "name_key" text not null, "kind" text null, "account" text null, "contract_until" date null)`,
    );
    this.addSql(`create index "organisations_name_key_index" on "organisations" ("name_key")`);
    this.addSql(
      `alter table "organisations" add constraint "organisations_account_unique" unique ("account")`,
    );
    this.addSql(
      `create table "customers" ("id" serial primary key, "first_name" text null, "last_name" text null, "display_name" text not null, "name_key" text null, "language" text null, "time_zone" text null, "phone" text null, "since" date null, "organisation_id" int null, "created_at" timestamptz not null default now())`,
    );
    this.addSql(`create index "customers_name_key_index" on "customers" ("name_key")`);
    this.addSql(`create index "customers_organisation_id_index" on "customers" ("organisation_id")`);
    this.addSql(
      `create table "customer_addresses" ("id" serial primary key, "channel" text check ("channel" in ('email', 'chat', 'sms')) not null, "address" text not null, "customer_id" int not null)`,
    );
    this.addSql(
      `create index "customer_addresses_customer_id_index" on "customer_addresses" ("customer_id")`,
    );
    this.addSql(
      `alter table "customer_addresses" add constraint "customer_addresses_channel_address_unique" unique ("channel", "address")`,
    );
    this.addSql(
      `create table "files" ("id" serial primary key, "sha256" varchar(64) not null, "size" int not null, "content" bytea not null, "created_at" timestamptz not null default now())`,
    );
    this.addSql(`alter table "files" add constraint "files_sha256_unique" unique ("sha256")`);
    this.addSql(
      `create table "teams" ("id" serial primary key, "name" text not null, "mailbox" text not null, "answer_within" int not null, "usual_opening" text null, "usual_closing" text null)`,
    );
    this.addSql(`alter table "teams" add constraint "teams_name_unique" unique ("name")`);
    this.addSql(`alter table "teams" add constraint "teams_mailbox_unique" unique ("mailbox")`);
    this.addSql(
      `create table "stationery" ("id" serial primary key, "team_id" int not null, "name" text not null, "header" jsonb null, "footer" jsonb null, "accent" varchar(7) not null)`,
    );
    this.addSql(`alter table "stationery" add constraint "stationery_team_id_unique" unique ("team_id")`);
    this.addSql(
      `create table "people" ("id" serial primary key, "email" text not null, "password_hash" text null, "name" text not null, "first_name" text not null, "title" text null, "department" text null, "phone" text null, "role" text check ("role" in ('agent', 'curator', 'lead')) not null, "time_zone" text not null, "active" boolean not null default true, "team_id" int not null, "created_at" timestamptz not null default now())`,
    );
    this.addSql(`alter table "people" add constraint "people_email_unique" unique ("email")`);
    this.addSql(
      `create table "signatures" ("id" serial primary key, "person_id" int null, "team_id" int null, "document" jsonb not null, constraint signatures_of_one check (("person_id" is null) <> ("team_id" is null)))`,
    );
    this.addSql(`alter table "signatures" add constraint "signatures_person_id_unique" unique ("person_id")`);
    this.addSql(`alter table "signatures" add constraint "signatures_team_id_unique" unique ("team_id")`);
    this.addSql(
      `create table "shelves" ("id" serial primary key, "key" text not null, "name" text not null, "mark" varchar(2) not null, "audience" text check ("audience" in ('everyone', 'teams', 'owner')) not null, "owner_id" int null, "position" int not null default 0)`,
    );
    this.addSql(`alter table "shelves" add constraint "shelves_key_unique" unique ("key")`);
    this.addSql(
      `create table "shelf_teams" ("shelf_id" int not null, "team_id" int not null, constraint "shelf_teams_pkey" primary key ("shelf_id", "team_id"))`,
    );
    this.addSql(
      `create table "sessions" ("id" serial primary key, "token_hash" varchar(64) not null, "previous_hash" varchar(64) null, "rotated_at" timestamptz not null, "expires_at" timestamptz not null, "created_at" timestamptz not null default now(), "person_id" int not null)`,
    );
    this.addSql(`alter table "sessions" add constraint "sessions_token_hash_unique" unique ("token_hash")`);
    this.addSql(`create index "sessions_previous_hash_index" on "sessions" ("previous_hash")`);
    this.addSql(`create index "sessions_expires_at_index" on "sessions" ("expires_at")`);
    this.addSql(
      `create table "replies" ("id" serial primary key, "key" text not null, "shelf_id" int not null, "title" text not null, "note" text null, "part" text check ("part" in ('opening', 'answer', 'closing')) not null, "state" text check ("state" in ('draft', 'ready to check', 'shelved', 'retired')) not null, "tags" text[] not null default '{}', "channels" text[] not null default '{}', "topics" text[] not null default '{}', "owner_id" int null, "review_by" date null, "season_from" date null, "season_until" date null, "created_at" timestamptz not null default now())`,
    );
    this.addSql(`alter table "replies" add constraint "replies_key_unique" unique ("key")`);
    this.addSql(`create index "replies_shelf_id_index" on "replies" ("shelf_id")`);
    this.addSql(
      `create table "reply_versions" ("id" serial primary key, "reply_id" int not null, "number" int not null, "state" text check ("state" in ('draft', 'proposed', 'published', 'superseded', 'sent back')) not null, "blanks" jsonb not null, "passages" jsonb not null, "use_template_subject" boolean not null default false, "author_id" int null, "remark" text null, "created_at" timestamptz not null default now())`,
    );
    this.addSql(
      `create unique index "reply_versions_published" on "reply_versions" ("reply_id") where "state" = 'published'`,
    );
    this.addSql(
      `alter table "reply_versions" add constraint "reply_versions_reply_id_number_unique" unique ("reply_id", "number")`,
    );
    this.addSql(
      `create table "reply_variants" ("id" serial primary key, "version_id" int not null, "language" text not null, "fallback" boolean not null, "title" text null, "subject" text null, "document" jsonb not null, "words" text not null)`,
    );
    this.addSql(
      `create index "reply_variants_words" on "reply_variants" using gin (to_tsvector('english', "words"))`,
    );
    this.addSql(`create index "reply_variants_trgm" on "reply_variants" using gin ("words" gin_trgm_ops)`);
    this.addSql(
      `alter table "reply_variants" add constraint "reply_variants_version_id_language_unique" unique ("version_id", "language")`,
    );
    this.addSql(
      `create table "reply_attachments" ("id" serial primary key, "version_id" int not null, "file_id" int not null, "name" text not null, "content_type" text not null, "position" int not null)`,
    );
    this.addSql(`create index "reply_attachments_version_id_index" on "reply_attachments" ("version_id")`);
    this.addSql(
      `create table "house_fact_values" ("id" serial primary key, "fact_id" int not null, "value" jsonb not null, "valid_from" timestamptz not null, "person_id" int null)`,
    );
    this.addSql(
      `alter table "house_fact_values" add constraint "house_fact_values_fact_id_valid_from_unique" unique ("fact_id", "valid_from")`,
    );
    this.addSql(
      `create table "cases" ("id" serial primary key, "number" int not null, "channel" text check ("channel" in ('email', 'chat', 'sms')) not null, "subject" text not null, "topic" text null, "language" text null, "status" text check ("status" in ('waiting for us', 'waiting for the customer', 'set aside', 'closed')) not null, "customer_id" int not null, "team_id" int not null, "assignee_id" int null, "booking_reference" text null, "details" jsonb not null default '{}', "opened_at" timestamptz not null, "waiting_since" timestamptz null, "answer_by" timestamptz null, "updated_at" timestamptz not null default now())`,
    );
    this.addSql(`alter table "cases" add constraint "cases_number_unique" unique ("number")`);
    this.addSql(`create index "cases_customer_id_index" on "cases" ("customer_id")`);
    this.addSql(`create index "cases_team_id_index" on "cases" ("team_id")`);
    this.addSql(`create index "cases_assignee_id_index" on "cases" ("assignee_id")`);
    this.addSql(`create index "cases_status_answer_by_index" on "cases" ("status", "answer_by")`);
    this.addSql(`create index "cases_subject_trgm" on "cases" using gin ("subject" gin_trgm_ops)`);
    this.addSql(
      `create table "case_presence" ("case_id" int not null, "person_id" int not null, "seen_at" timestamptz not null, constraint "case_presence_pkey" primary key ("case_id", "person_id"))`,
    );
    this.addSql(
      `create table "messages" ("id" serial primary key, "case_id" int not null, "direction" text check ("direction" in ('in', 'out')) not null, "channel" text check ("channel" in ('email', 'chat', 'sms')) not null, "state" text check ("state" in ('received', 'due', 'sending', 'sent', 'refused', 'called back')) not null, "from_name" text null, "from_address" text not null, "to_address" text not null, "subject" text not null, "text" text not null, "html" text null, "language" text null, "message_id" text null, "references" text[] not null default '{}', "raw_id" int null, "person_id" int null, "at" timestamptz not null, "due_at" timestamptz null, "sent_at" timestamptz null, "attempts" int not null default 0, "refusal" text null)`,
    );
    this.addSql(`alter table "messages" add constraint "messages_message_id_unique" unique ("message_id")`);
    this.addSql(`create index "messages_case_id_at_index" on "messages" ("case_id", "at")`);
    this.addSql(
      `create index "messages_words" on "messages" using gin (to_tsvector('simple', "subject" || ' ' || "text"))`,
    );
    this.addSql(`create index "messages_due" on "messages" ("due_at") where "state" in ('due', 'sending')`);
    this.addSql(
      `create table "sent_letters" ("id" serial primary key, "message_id" int not null, "case_id" int not null, "person_id" int null, "language" text not null, "subject" jsonb not null, "slips" jsonb not null, "trace" jsonb not null, "checks" jsonb not null, "created_at" timestamptz not null default now())`,
    );
    this.addSql(
      `alter table "sent_letters" add constraint "sent_letters_message_id_unique" unique ("message_id")`,
    );
    this.addSql(`create index "sent_letters_case_id_index" on "sent_letters" ("case_id")`);
    this.addSql(
      `create table "letter_replies" ("id" serial primary key, "letter_id" int not null, "reply_id" int not null, "position" int not null, "at" timestamptz not null)`,
    );
    this.addSql(`create index "letter_replies_letter_id_index" on "letter_replies" ("letter_id")`);
    this.addSql(`create index "letter_replies_reply_id_at_index" on "letter_replies" ("reply_id", "at")`);
    this.addSql(
      `create table "drafts" ("id" serial primary key, "case_id" int not null, "person_id" int not null, "language" text not null, "subject" jsonb not null, "version" int not null default 1, "updated_at" timestamptz not null default now())`,
    );
    this.addSql(`create index "drafts_person_id_index" on "drafts" ("person_id")`);
    this.addSql(
      `alter table "drafts" add constraint "drafts_case_id_person_id_unique" unique ("case_id", "person_id")`,
    );
    this.addSql(
      `create table "slips" ("id" serial primary key, "draft_id" int not null, "uid" text not null, "position" int not null, "version_id" int null, "language" text not null, "document" jsonb not null, "values" jsonb not null)`,
    );
    this.addSql(`alter table "slips" add constraint "slips_draft_id_uid_unique" unique ("draft_id", "uid")`);
    this.addSql(
      `create table "attachments" ("id" serial primary key, "message_id" int null, "draft_id" int null, "file_id" int not null, "name" text not null, "content_type" text not null, "content_id" text null, "position" int not null default 0, constraint attachments_of_one check (("message_id" is null) <> ("draft_id" is null)))`,
    );
    this.addSql(`create index "attachments_message_id_index" on "attachments" ("message_id")`);
    this.addSql(`create index "attachments_draft_id_index" on "attachments" ("draft_id")`);
    this.addSql(
      `create table "case_lookups" ("id" serial primary key, "case_id" int not null, "source" text not null, "reference" text not null, "data" jsonb null, "problem" text null, "fetched_at" timestamptz not null)`,
    );
    this.addSql(
      `alter table "case_lookups" add constraint "case_lookups_case_id_source_unique" unique ("case_id", "source")`,
    );
    this.addSql(
      `create table "case_events" ("id" serial primary key, "case_id" int not null, "person_id" int null, "kind" text check ("kind" in ('opened', 'received', 'queued', 'called back', 'sent', 'refused', 'tried again', 'set aside', 'reopened')) not null, "data" jsonb not null default '{}', "at" timestamptz not null default now())`,
    );
    this.addSql(`create index "case_events_case_id_index" on "case_events" ("case_id")`);
    this.addSql(
      `alter table "customers" add constraint "customers_organisation_id_foreign" foreign key ("organisation_id") references "organisations" ("id") on update cascade on delete set null`,
    );
    this.addSql(
      `alter table "customer_addresses" add constraint "customer_addresses_customer_id_foreign" foreign key ("customer_id") references "customers" ("id") on update cascade on delete cascade`,
    );
    this.addSql(
      `alter table "stationery" add constraint "stationery_team_id_foreign" foreign key ("team_id") references "teams" ("id") on update cascade on delete cascade`,
    );
    this.addSql(
      `alter table "people" add constraint "people_team_id_foreign" foreign key ("team_id") references "teams" ("id") on update cascade`,
    );
    this.addSql(
      `alter table "signatures" add constraint "signatures_person_id_foreign" foreign key ("person_id") references "people" ("id") on update cascade on delete cascade`,
    );
    this.addSql(
      `alter table "signatures" add constraint "signatures_team_id_foreign" foreign key ("team_id") references "teams" ("id") on update cascade on delete cascade`,
    );
    this.addSql(
      `alter table "shelves" add constraint "shelves_owner_id_foreign" foreign key ("owner_id") references "people" ("id") on update cascade on delete set null`,
    );
    this.addSql(
      `alter table "shelf_teams" add constraint "shelf_teams_shelf_id_foreign" foreign key ("shelf_id") references "shelves" ("id") on update cascade on delete cascade`,
    );
    this.addSql(
      `alter table "shelf_teams" add constraint "shelf_teams_team_id_foreign" foreign key ("team_id") references "teams" ("id") on update cascade on delete cascade`,
    );
    this.addSql(
      `alter table "sessions" add constraint "sessions_person_id_foreign" foreign key ("person_id") references "people" ("id") on update cascade on delete cascade`,
    );
    this.addSql(
      `alter table "replies" add constraint "replies_shelf_id_foreign" foreign key ("shelf_id") references "shelves" ("id") on update cascade`,
    );
    this.addSql(
      `alter table "replies" add constraint "replies_owner_id_foreign" foreign key ("owner_id") references "people" ("id") on update cascade on delete set null`,
    );
    this.addSql(
      `alter table "reply_versions" add constraint "reply_versions_reply_id_foreign" foreign key ("reply_id") references "replies" ("id") on update cascade on delete cascade`,
    );
    this.addSql(
      `alter table "reply_versions" add constraint "reply_versions_author_id_foreign" foreign key ("author_id") references "people" ("id") on update cascade on delete set null`,
    );
    this.addSql(
      `alter table "reply_variants" add constraint "reply_variants_version_id_foreign" foreign key ("version_id") references "reply_versions" ("id") on update cascade on delete cascade`,
    );
    this.addSql(
      `alter table "reply_attachments" add constraint "reply_attachments_version_id_foreign" foreign key ("version_id") references "reply_versions" ("id") on update cascade on delete cascade`,
    );
    this.addSql(
      `alter table "reply_attachments" add constraint "reply_attachments_file_id_foreign" foreign key ("file_id") references "files" ("id") on update cascade`,
    );
    this.addSql(
      `alter table "house_fact_values" add constraint "house_fact_values_fact_id_foreign" foreign key ("fact_id") references "house_facts" ("id") on update cascade on delete cascade`,
    );
    this.addSql(
      `alter table "house_fact_values" add constraint "house_fact_values_person_id_foreign" foreign key ("person_id") references "people" ("id") on update cascade on delete set null`,
    );
    this.addSql(
      `alter table "cases" add constraint "cases_customer_id_foreign" foreign key ("customer_id") references "customers" ("id") on update cascade`,
    );
    this.addSql(
      `alter table "cases" add constraint "cases_team_id_foreign" foreign key ("team_id") references "teams" ("id") on update cascade`,
    );
    this.addSql(
      `alter table "cases" add constraint "cases_assignee_id_foreign" foreign key ("assignee_id") references "people" ("id") on update cascade on delete set null`,
    );
    this.addSql(
      `alter table "case_presence" add constraint "case_presence_case_id_foreign" foreign key ("case_id") references "cases" ("id") on update cascade on delete cascade`,
    );
    this.addSql(
      `alter table "case_presence" add constraint "case_presence_person_id_foreign" foreign key ("person_id") references "people" ("id") on update cascade on delete cascade`,
    );
    this.addSql(
      `alter table "messages" add constraint "messages_case_id_foreign" foreign key ("case_id") references "cases" ("id") on update cascade on delete cascade`,
    );
    this.addSql(
      `alter table "messages" add constraint "messages_raw_id_foreign" foreign key ("raw_id") references "files" ("id") on update cascade on delete set null`,
    );
    this.addSql(
      `alter table "messages" add constraint "messages_person_id_foreign" foreign key ("person_id") references "people" ("id") on update cascade on delete set null`,
    );
    this.addSql(
      `alter table "sent_letters" add constraint "sent_letters_message_id_foreign" foreign key ("message_id") references "messages" ("id") on update cascade on delete cascade`,
    );
    this.addSql(
      `alter table "sent_letters" add constraint "sent_letters_case_id_foreign" foreign key ("case_id") references "cases" ("id") on update cascade on delete cascade`,
    );
    this.addSql(
      `alter table "sent_letters" add constraint "sent_letters_person_id_foreign" foreign key ("person_id") references "people" ("id") on update cascade on delete set null`,
    );
    this.addSql(
      `alter table "letter_replies" add constraint "letter_replies_letter_id_foreign" foreign key ("letter_id") references "sent_letters" ("id") on update cascade on delete cascade`,
    );
    this.addSql(
      `alter table "letter_replies" add constraint "letter_replies_reply_id_foreign" foreign key ("reply_id") references "replies" ("id") on update cascade on delete cascade`,
    );
    this.addSql(
      `alter table "drafts" add constraint "drafts_case_id_foreign" foreign key ("case_id") references "cases" ("id") on update cascade on delete cascade`,
    );
    this.addSql(
      `alter table "drafts" add constraint "drafts_person_id_foreign" foreign key ("person_id") references "people" ("id") on update cascade on delete cascade`,
    );
    this.addSql(
      `alter table "slips" add constraint "slips_draft_id_foreign" foreign key ("draft_id") references "drafts" ("id") on update cascade on delete cascade`,
    );
    this.addSql(
      `alter table "slips" add constraint "slips_version_id_foreign" foreign key ("version_id") references "reply_versions" ("id") on update cascade on delete set null`,
    );
    this.addSql(
      `alter table "attachments" add constraint "attachments_message_id_foreign" foreign key ("message_id") references "messages" ("id") on update cascade on delete cascade`,
    );
    this.addSql(
      `alter table "attachments" add constraint "attachments_draft_id_foreign" foreign key ("draft_id") references "drafts" ("id") on update cascade on delete cascade`,
    );
    this.addSql(
      `alter table "attachments" add constraint "attachments_file_id_foreign" foreign key ("file_id") references "files" ("id") on update cascade`,
    );
    this.addSql(
      `alter table "case_lookups" add constraint "case_lookups_case_id_foreign" foreign key ("case_id") references "cases" ("id") on update cascade on delete cascade`,
    );
    this.addSql(
      `alter table "case_events" add constraint "case_events_case_id_foreign" foreign key ("case_id") references "cases" ("id") on update cascade on delete cascade`,
    );
    this.addSql(
      `alter table "case_events" add constraint "case_events_person_id_foreign" foreign key ("person_id") references "people" ("id") on update cascade on delete set null`,
    );
  }
}
