import { Migration } from "@mikro-orm/migrations";

/** A person's latest letters are found without reading all that they ever sent. */
export class Migration00025LettersByWriter extends Migration {
  override up(): void {
    this.addSql(
      `create index "sent_letters_person_id_created_at_index" on "sent_letters" ("person_id", "created_at")`,
    );
    this.addSql(`drop index "sent_letters_person_id_index"`);
  }
}
