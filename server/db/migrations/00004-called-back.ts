import { Migration } from "@mikro-orm/migrations";

/** Rankers hear of letters that are called back, and take back what they learned of them. */
export class Migration00004CalledBack extends Migration {
  override up(): void {
    this.addSql(
      `create trigger tell_rankers after update of "state" on "messages" for each row when (new."state" = 'called back') execute function tell_rankers()`,
    );
  }
}
