import { Migration } from "@mikro-orm/migrations";

/** Rules are asked when a case changes as well, and when nobody says anything; what else they do to a case; tags of cases. */
export class Migration00027StandingOccasions extends Migration {
  override up(): void {
    this.addSql(
      `alter table "standing_rules" add column "trigger" jsonb null, add column "effects" jsonb not null default '{}'`,
    );
    this.addSql(`alter table "standing_done" add column "occasion" text not null default 'arrival'`);
    this.addSql(`alter table "standing_done" drop constraint "standing_done_rule_id_message_id_unique"`);
    this.addSql(
      `alter table "standing_done" add constraint "standing_done_rule_id_message_id_occasion_unique" unique ("rule_id", "message_id", "occasion")`,
    );
    this.addSql(`alter table "standing_done" drop constraint "standing_done_does_check"`);
    this.addSql(
      `alter table "standing_done" add constraint "standing_done_does_check" check ("does" in ('send', 'prepare', 'instead', 'held', 'passes'))`,
    );
    this.addSql(
      `create index "standing_done_sent" on "standing_done" ("rule_id", "at") where "does" = 'send'`,
    );
    this.addSql(`alter table "case_notices" drop constraint "case_notices_on_check"`);
    this.addSql(
      `alter table "case_notices" add constraint "case_notices_on_check" check ("on" in ('state', 'topic', 'owner', 'promise', 'arrival', 'silence'))`,
    );
    this.addSql(`alter table "cases" add column "tags" text[] not null default '{}'`);
    this.addSql(`alter table "case_changes" drop constraint "case_changes_kind_check"`);
    this.addSql(
      `alter table "case_changes" add constraint "case_changes_kind_check" check ("kind" in ('joined', 'split', 'moved', 'message moved', 'state', 'assigned', 'topic', 'tags'))`,
    );
    this.addSql(`alter table "case_events" drop constraint "case_events_kind_check"`);
    this.addSql(
      `alter table "case_events" add constraint "case_events_kind_check" check ("kind" in ('opened', 'received', 'queued', 'called back', 'sent', 'refused', 'tried again', 'set aside', 'reopened', 'address kept', 'handed over', 'arrived', 'begun', 'forwarded', 'joined', 'split', 'moved', 'message moved', 'undone', 'pressed', 'chat ended', 'state', 'assigned', 'topic', 'tags', 'field', 'promise', 'notice', 'time'))`,
    );

    this.addSql(
      `create table "standing_occasions" ("id" serial primary key, "case_id" int not null, "on" text check ("on" in ('state', 'topic', 'owner')) not null, "into" text null, "at" timestamptz not null)`,
    );
    this.addSql(`create index "standing_occasions_case_id_index" on "standing_occasions" ("case_id")`);
    this.addSql(
      `alter table "standing_occasions" add constraint "standing_occasions_case_id_foreign" foreign key ("case_id") references "cases" ("id") on update cascade on delete cascade`,
    );
    // Whoever changes a case, and wherever, rules are asked of it, unless the transaction says that none are to be.
    this.addSql(`
      create function keep_standing_occasion() returns trigger language plpgsql as $$
      begin
        if current_setting('plain_shelf.no_rules', true) = 'on' then return null; end if;
        insert into standing_occasions (case_id, "on", "into", at)
          select new.id, o."on", o."into", clock_timestamp() from (values
              ('state', new.status, new.status is distinct from old.status),
              ('topic', new.topic, new.topic is distinct from old.topic),
              ('owner', null, new.assignee_id is distinct from old.assignee_id and new.assignee_id is not null)
            ) o ("on", "into", changed)
           where o.changed and exists (select 1 from standing_rules r where r.switched_on_at is not null and r.trigger ->> 'on' = o."on");
        return null;
      end $$`);
    this.addSql(
      `create trigger keep_standing_occasion after update on "cases" for each row when (old.status is distinct from new.status or old.topic is distinct from new.topic or old.assignee_id is distinct from new.assignee_id) execute function keep_standing_occasion()`,
    );
  }
}
