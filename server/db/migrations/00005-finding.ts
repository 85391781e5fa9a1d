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
    this.addSql(
      `create trigger tell_of_replies after insert or update or delete on "replies" for each statement execute function tell_of_replies()`,
    );
    // What a search finds are versions: their replies are found without reading all. Some databases have it already.
    this.addSql(
      `create index if not exists "replies_current_version_id_index" on "replies" ("current_version_id")`,
    );
    // Variants are written at every pause of whoever writes: only those that stand on a shelf are told of.
    this.addSql(`
      create function tell_of_variants() returns trigger language plpgsql as $$
      begin
        if exists (select 1 from replies where current_version_id = coalesce(new.version_id, old.version_id)) then
          perform pg_notify('plain_shelf_replies', '');
        end if;
        return null;
      end $$`);
    this.addSql(
      `create trigger tell_of_variants after insert or update or delete on "reply_variants" for each row execute function tell_of_variants()`,
    );
    // These are searched with every letter that is typed, and written when a reply is published.
    for (const index of ["search_words_trgm", "reply_variants_terms"]) {
      this.addSql(`alter index "${index}" set (fastupdate = off)`);
      this.addSql(`select gin_clean_pending_list('${index}')`);
    }
  }
}
