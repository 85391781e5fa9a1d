import { Migration } from "@mikro-orm/migrations";

/** What customers were promised on a case, by when, and what came of it. */
export class Migration00022Promises extends Migration {
  override up(): void {
    this.addSql(
      `create table "promises" ("id" serial primary key, "case_id" int not null, "person_id" int not null, "words" text not null, "by" date not null, "at" timestamptz not null, "outcome" text check ("outcome" in ('kept', 'withdrawn')) null, "settled_by_id" int null, "settled_at" timestamptz null)`,
    );
    this.addSql(`create index "promises_case_id_index" on "promises" ("case_id")`);
    for (const [column, table, deletion] of [
      ["case_id", "cases", " on delete cascade"],
      ["person_id", "people", ""],
      ["settled_by_id", "people", " on delete set null"],
    ])
      this.addSql(
        `alter table "promises" add constraint "promises_${column ?? ""}_foreign" foreign key ("${column ?? ""}") references "${table ?? ""}" ("id") on update cascade${deletion ?? ""}`,
      );
    // For finding what was said with somebody, and by the channels that are seldom.
    this.addSql(
      `create index "customer_addresses_address_trgm" on "customer_addresses" using gin ("address" gin_trgm_ops)`,
    );
    this.addSql(
      `create index "messages_seldom_channel" on "messages" ("channel", "at", "id") where "channel" <> 'email'`,
    );
    this.addSql(`alter table "case_events" drop constraint "case_events_kind_check"`);
    this.addSql(
      `alter table "case_events" add constraint "case_events_kind_check" check ("kind" in ('opened', 'received', 'queued', 'called back', 'sent', 'refused', 'tried again', 'set aside', 'reopened', 'address kept', 'handed over', 'arrived', 'begun', 'forwarded', 'joined', 'split', 'moved', 'message moved', 'undone', 'pressed', 'chat ended', 'state', 'assigned', 'topic', 'field', 'promise'))`,
    );
  }
}
