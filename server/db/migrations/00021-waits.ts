import { Migration } from "@mikro-orm/migrations";

/** By when each answer was due, and when it went. */
export class Migration00021Waits extends Migration {
  override up(): void {
    this.addSql(
      `create table "waits" ("id" serial primary key, "message_id" int not null, "team_id" int not null, "channel" text check ("channel" in ('email', 'chat', 'sms')) not null, "is_first" boolean not null, "since" timestamptz not null, "due" timestamptz null, "at" timestamptz not null)`,
    );
    this.addSql(`alter table "waits" add constraint "waits_message_id_unique" unique ("message_id")`);
    this.addSql(
      `alter table "waits" add constraint "waits_message_id_foreign" foreign key ("message_id") references "messages" ("id") on update cascade on delete cascade`,
    );
    this.addSql(
      `alter table "waits" add constraint "waits_team_id_foreign" foreign key ("team_id") references "teams" ("id") on update cascade`,
    );
    this.addSql(`create index "waits_at_index" on "waits" ("at")`);
    this.addSql(`create index "case_changes_kind_at_index" on "case_changes" ("kind", "at")`);
  }
}
