import { Migration } from "@mikro-orm/migrations";

/** Colleagues are invited, are in several teams, get another password and are sent away. */
export class Migration00008People extends Migration {
  override up(): void {
    this.addSql(
      `alter table "people" add column "must_change_password" boolean not null default false, add column "left_at" timestamptz null`,
    );
    this.addSql(
      `create table "person_teams" ("person_id" int not null, "team_id" int not null, constraint "person_teams_pkey" primary key ("person_id", "team_id"))`,
    );
    this.addSql(
      `alter table "person_teams" add constraint "person_teams_person_id_foreign" foreign key ("person_id") references "people" ("id") on update cascade on delete cascade`,
    );
    this.addSql(
      `alter table "person_teams" add constraint "person_teams_team_id_foreign" foreign key ("team_id") references "teams" ("id") on update cascade on delete cascade`,
    );
    this.addSql(
      `create table "password_links" ("id" serial primary key, "person_id" int not null, "purpose" text check ("purpose" in ('invited', 'reset')) not null, "nonce" varchar(32) not null, "made_by_id" int null, "created_at" timestamptz not null, "expires_at" timestamptz not null, "used_at" timestamptz null)`,
    );
    this.addSql(`create index "password_links_person_id_index" on "password_links" ("person_id")`);
    this.addSql(
      `alter table "password_links" add constraint "password_links_person_id_foreign" foreign key ("person_id") references "people" ("id") on update cascade on delete cascade`,
    );
    this.addSql(
      `alter table "password_links" add constraint "password_links_made_by_id_foreign" foreign key ("made_by_id") references "people" ("id") on update cascade on delete set null`,
    );
    this.addSql(
      `alter table "house" add column "languages" text[] not null default '{en}', add column "region" varchar(2) null`,
    );
    this.addSql(`update "house" set "languages" = array["language"]`);
    this.addSql(
      `create table "setup_steps" ("step" text not null, "state" text check ("state" in ('done', 'skipped')) not null, "person_id" int null, "at" timestamptz not null, constraint "setup_steps_pkey" primary key ("step"))`,
    );
    this.addSql(
      `alter table "setup_steps" add constraint "setup_steps_person_id_foreign" foreign key ("person_id") references "people" ("id") on update cascade on delete set null`,
    );
    // A house that is at work was set up.
    this.addSql(
      `insert into "setup_steps" select s, 'done', null, now() from unnest(array['house', 'team', 'people', 'shelf', 'reply', 'mail']) s where exists (select 1 from "house")`,
    );
    // Cases that go to a colleague say so in their history.
    this.addSql(`alter table "case_events" drop constraint "case_events_kind_check"`);
    this.addSql(
      `alter table "case_events" add constraint "case_events_kind_check" check ("kind" in ('opened', 'received', 'queued', 'called back', 'sent', 'refused', 'tried again', 'set aside', 'reopened', 'address kept', 'handed over'))`,
    );
  }
}
