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
    this.addSql(
      `create table "detail_fields" ("id" serial primary key, "key" text not null, "label" text not null, "type" text check ("type" in ('text', 'long_text', 'integer', 'number', 'money', 'date', 'time', 'datetime', 'yes_no', 'link', 'language')) not null, "example" jsonb not null, "always" boolean not null default false, "ordinary" boolean not null default false, "short" text null, "usual" text null, "position" int not null default 0)`,
    );
    this.addSql(`alter table "detail_fields" add constraint "detail_fields_key_unique" unique ("key")`);
    // Before, every house had these, and its replies may read them.
    this.addSql(`
      insert into detail_fields ("key", "label", "type", "example", "always", "ordinary", "short", "usual", "position")
        select * from (values
          ('reference', 'booking reference', 'text', '"QW7-K2M"'::jsonb, true, false, null, null, 0),
          ('status', 'booking status', 'text', '"confirmed"'::jsonb, true, true, 'State', 'confirmed', 1),
          ('cause', 'cause of a change', 'text', '"wind"'::jsonb, false, true, null, null, 2),
          ('lead_name', 'name on the booking', 'text', '"O. Vandermeersch"'::jsonb, true, false, 'Name', null, 3),
          ('sails_at', 'sailing', 'datetime', '"2026-11-27T07:40:00Z"'::jsonb, true, false, 'Sailing', null, 4),
          ('arrives_at', 'arrival', 'datetime', '"2026-11-27T09:25:00Z"'::jsonb, true, false, null, null, 5),
          ('check_in_at', 'check-in closes', 'datetime', '"2026-11-27T06:55:00Z"'::jsonb, true, false, null, null, 6),
          ('from', 'from harbour', 'text', '"Tarn Head"'::jsonb, true, false, 'From', null, 7),
          ('to', 'to harbour', 'text', '"Pellick"'::jsonb, true, false, 'To', null, 8),
          ('ship', 'ship', 'text', '"Kittiwake"'::jsonb, true, false, 'Ship', null, 9),
          ('fare', 'fare', 'money', '{"amount": 118, "currency": "EUR"}'::jsonb, true, false, 'Fare', null, 10),
          ('passengers', 'number of passengers', 'integer', '2'::jsonb, true, false, 'People', null, 11),
          ('vehicle', 'vehicle', 'text', '"van"'::jsonb, false, true, 'Vehicle', null, 12),
          ('vehicle_height', 'height of the vehicle, in metres', 'number', '2.4'::jsonb, false, false, 'Height, m', null, 13),
          ('animals', 'number of animals', 'integer', '1'::jsonb, false, false, 'Animals', null, 14),
          ('new_sails_at', 'new sailing', 'datetime', '"2026-11-28T06:15:00Z"'::jsonb, false, false, 'New sailing', null, 15),
          ('new_arrives_at', 'arrival of the new sailing', 'datetime', '"2026-11-28T08:00:00Z"'::jsonb, false, false, null, null, 16),
          ('new_ship', 'ship of the new sailing', 'text', '"Second Tide"'::jsonb, false, false, 'New ship', null, 17)
        ) as known where exists (select 1 from "house")`);
    this.addSql(
      `create trigger count_change_of_settings after insert or update or delete or truncate on "detail_fields" for each statement execute function count_change_of_settings()`,
    );
    // Cases that go to a colleague say so in their history.
    this.addSql(`alter table "case_events" drop constraint "case_events_kind_check"`);
    this.addSql(
      `alter table "case_events" add constraint "case_events_kind_check" check ("kind" in ('opened', 'received', 'queued', 'called back', 'sent', 'refused', 'tried again', 'set aside', 'reopened', 'address kept', 'handed over'))`,
    );
  }
}
