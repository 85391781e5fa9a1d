import { Migration } from "@mikro-orm/migrations";

/** How proposals stand is asked at every look at Waiting, of few rows among all versions of all replies. */
export class Migration00010Decided extends Migration {
  override up(): void {
    this.addSql(
      `create index "reply_versions_decided" on "reply_versions" ("author_id") where "decided_by_id" <> "author_id"`,
    );
  }
}
