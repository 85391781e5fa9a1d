import { Migration } from "@mikro-orm/migrations";

/** How a reply is filed is written like its words and published with them; what becomes of replies is on record. */
export class Migration00009Filing extends Migration {
  override up(): void {
    this.addSql(`alter table "reply_versions" add column "filing" jsonb null`);
    this.addSql(
      `create table "reply_events" ("id" serial primary key, "reply_id" int not null, "person_id" int null, "at" timestamptz not null default now(), "words" text not null)`,
    );
    this.addSql(`create index "reply_events_reply_id_index" on "reply_events" ("reply_id")`);
    this.addSql(
      `alter table "reply_events" add constraint "reply_events_reply_id_foreign" foreign key ("reply_id") references "replies" ("id") on update cascade on delete cascade`,
    );
    this.addSql(
      `alter table "reply_events" add constraint "reply_events_person_id_foreign" foreign key ("person_id") references "people" ("id") on update cascade on delete set null`,
    );
  }
}
