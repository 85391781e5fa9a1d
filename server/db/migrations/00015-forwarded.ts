import { Migration } from "@mikro-orm/migrations";

/** Letters that forward a message are of a kind of their own; how many left within a minute is found quickly. */
export class Migration00015Forwarded extends Migration {
  override up(): void {
    this.addSql(`alter table "messages" drop constraint "messages_kind_check"`);
    this.addSql(
      `alter table "messages" add constraint "messages_kind_check" check ("kind" in ('message', 'automatic', 'list', 'failure', 'pressed', 'forwarded'))`,
    );
    this.addSql(`alter table "drafts" drop column "forwards_id", drop column "with_files"`);
    this.addSql(`create index "messages_sent" on "messages" ("sent_at") where "direction" = 'out'`);
  }
}
