import { Migration } from "@mikro-orm/migrations";

/** A reply may have a text of its own for a channel. */
export class Migration00016TextsOfChannels extends Migration {
  override up(): void {
    this.addSql(`alter table "reply_variants" add column "texts" jsonb not null default '{}'`);
  }
}
