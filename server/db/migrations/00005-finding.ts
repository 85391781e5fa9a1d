import { Migration } from "@mikro-orm/migrations";

/** Searching does not wait for what was put off in indexes. Who finds replies by their words hears of every change of them, apart from letters that are sent; variants in their forms of words too. */
export class Migration00005Finding extends Migration {
  override up(): void {
    this.addSql(`
      create function tell_of_replies() returns trigger language plpgsql as $$
      begin
        perform pg_notify('plain_shelf_replies', '');
        return null;
      end $$`);
    this.addSql(`drop trigger tell_rankers on "replies"`);
    for (const table of ["replies", "reply_variants"])
      this.addSql(
        `create trigger tell_of_replies after insert or update or delete on "${table}" for each statement execute function tell_of_replies()`,
      );
    // These are searched with every letter that is typed, and written when a reply is published.
    for (const index of ["search_words_trgm", "reply_variants_terms"]) {
      this.addSql(`alter index "${index}" set (fastupdate = off)`);
      this.addSql(`select gin_clean_pending_list('${index}')`);
    }
  }
}
