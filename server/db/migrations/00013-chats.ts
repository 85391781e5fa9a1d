import { Migration } from "@mikro-orm/migrations";

/** Customers chat: pieces by their numbers, who waits at the door, who of us takes how many. */
export class Migration00013Chats extends Migration {
  override up(): void {
    this.addSql(
      `create table "chats" ("id" serial primary key, "case_id" int not null, "token_hash" varchar(64) not null, "state" text check ("state" in ('waiting', 'open', 'ended')) not null, "person_id" int null, "name" text null, "email" text null, "page" text null, "pieces" int not null default 0, "read_to" int not null default 0, "got_to" int not null default 0, "seen_to" int not null default 0, "opened_at" timestamptz not null, "waiting_since" timestamptz null, "taken_at" timestamptz null, "said_at" timestamptz not null, "seen_at" timestamptz not null, "ended_at" timestamptz null, "ended_by" text check ("ended_by" in ('customer', 'agent', 'silence')) null, "mailed_to" text null)`,
    );
    this.addSql(`alter table "chats" add constraint "chats_token_hash_unique" unique ("token_hash")`);
    this.addSql(`create index "chats_case_id_index" on "chats" ("case_id")`);
    this.addSql(`create index "chats_person_id_index" on "chats" ("person_id")`);
    this.addSql(`create index "chats_going_on" on "chats" ("state") where "state" <> 'ended'`);
    this.addSql(
      `alter table "chats" add constraint "chats_case_id_foreign" foreign key ("case_id") references "cases" ("id") on update cascade on delete cascade`,
    );
    this.addSql(
      `alter table "chats" add constraint "chats_person_id_foreign" foreign key ("person_id") references "people" ("id") on update cascade on delete set null`,
    );
    this.addSql(
      `alter table "messages" add column "chat_id" int null, add column "piece" int null, add column "piece_key" text null, add column "read_at" timestamptz null`,
    );
    this.addSql(
      `alter table "messages" add constraint "messages_chat_id_foreign" foreign key ("chat_id") references "chats" ("id") on update cascade on delete set null`,
    );
    this.addSql(
      `alter table "messages" add constraint "messages_chat_id_piece_unique" unique ("chat_id", "piece")`,
    );
    this.addSql(
      `alter table "messages" add constraint "messages_chat_id_piece_key_unique" unique ("chat_id", "piece_key")`,
    );
    this.addSql(
      `alter table "people" add column "chat_limit" int not null default 0, add column "chat_seen_at" timestamptz null`,
    );
    this.addSql(`alter table "house" add column "embed_origins" text[] not null default '{}'`);
  }
}
