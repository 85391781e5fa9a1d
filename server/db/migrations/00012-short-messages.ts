import { Migration } from "@mikro-orm/migrations";

/** Short messages go out and come in by numbers of the teams, and say when they are on the phone. */
export class Migration00012ShortMessages extends Migration {
  override up(): void {
    this.addSql(
      `create table "phone_numbers" ("id" serial primary key, "number" text not null, "team_id" int not null)`,
    );
    this.addSql(`alter table "phone_numbers" add constraint "phone_numbers_number_unique" unique ("number")`);
    this.addSql(
      `alter table "phone_numbers" add constraint "phone_numbers_team_id_foreign" foreign key ("team_id") references "teams" ("id") on update cascade on delete cascade`,
    );
    this.addSql(
      `create trigger count_change_of_settings after insert or update or delete or truncate on "phone_numbers" for each statement execute function count_change_of_settings()`,
    );
    this.addSql(`alter table "case_events" drop constraint if exists "case_events_kind_check"`);
    this.addSql(
      `alter table "case_events" add constraint "case_events_kind_check" check ("kind" in ('opened', 'received', 'queued', 'called back', 'sent', 'refused', 'tried again', 'set aside', 'reopened', 'address kept', 'handed over', 'arrived', 'begun', 'forwarded', 'joined', 'split', 'moved', 'message moved', 'undone', 'pressed', 'chat ended'))`,
    );
    this.addSql(`alter table "messages" add column "delivered_at" timestamptz null`);
  }
}
