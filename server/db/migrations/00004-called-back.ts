import { Migration } from "@mikro-orm/migrations";

/** Rankers hear of letters that are called back, and take back what they learned of them; searching knows languages at once. */
export class Migration00004CalledBack extends Migration {
  override up(): void {
    this.addSql(
      `create trigger tell_rankers after update of "state" on "messages" for each row when (new."state" = 'called back') execute function tell_rankers()`,
    );
    // Which languages replies are written in is asked with each search.
    this.addSql(`create index "reply_variants_language_index" on "reply_variants" ("language")`);
  }
}
