import { Migration } from "@mikro-orm/migrations";

/** Who finds replies by their words hears of every change of them, apart from letters that are sent; variants in their forms of words too. */
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
  }
}
