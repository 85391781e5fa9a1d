import { Migration } from "@mikro-orm/migrations";

/** What ranking learns from: what was offered, looked at, taken, swapped and sent, and what was written anew. */
export class Migration00003Ranking extends Migration {
  override up(): void {
    this.addSql(`alter table "drafts" add column "offers" jsonb null`);
    this.addSql(`alter table "sent_letters" add column "gap" boolean not null default false`);
    this.addSql(
      `alter table "letter_replies" add column "version_id" int null, add column "rewritten" double precision null, add column "edits" jsonb null`,
    );
    this.addSql(
      `alter table "letter_replies" add constraint "letter_replies_version_id_foreign" foreign key ("version_id") references "reply_versions" ("id") on update cascade on delete set null`,
    );
    this.addSql(
      `create table "letter_offers" ("id" serial primary key, "letter_id" int not null, "reply_id" int not null, "version_id" int null, "position" int not null, "fit" double precision null, "looked" boolean not null, "taken" boolean not null, "swapped" boolean not null, "sent" boolean not null)`,
    );
    this.addSql(`create index "letter_offers_letter_id_index" on "letter_offers" ("letter_id")`);
    this.addSql(
      `alter table "letter_offers" add constraint "letter_offers_letter_id_foreign" foreign key ("letter_id") references "sent_letters" ("id") on update cascade on delete cascade`,
    );
    this.addSql(
      `alter table "letter_offers" add constraint "letter_offers_reply_id_foreign" foreign key ("reply_id") references "replies" ("id") on update cascade on delete cascade`,
    );
    this.addSql(
      `alter table "letter_offers" add constraint "letter_offers_version_id_foreign" foreign key ("version_id") references "reply_versions" ("id") on update cascade on delete set null`,
    );
    // Whatever is sent or kept, the rankers of all processes hear of it when it is committed.
    this.addSql(`
      create function tell_rankers() returns trigger language plpgsql as $$
      begin
        perform pg_notify('plain_shelf_ranking', '');
        return null;
      end $$`);
    this.addSql(
      `create trigger tell_rankers after insert on "sent_letters" for each statement execute function tell_rankers()`,
    );
    this.addSql(
      `create trigger tell_rankers after insert or update on "replies" for each statement execute function tell_rankers()`,
    );
  }
}
