import { Migration } from "@mikro-orm/migrations";

/** Where each word of a letter came from, what letters said of house facts, and that nothing changes once it was sent. */
export class Migration00018Record extends Migration {
  override up(): void {
    this.addSql(`alter table "sent_letters" add column "proof" jsonb null`);
    this.addSql(
      `create table "letter_facts" ("id" serial primary key, "letter_id" int not null, "name" text not null, "value" text not null, "at" timestamptz not null)`,
    );
    this.addSql(
      `alter table "letter_facts" add constraint "letter_facts_letter_id_foreign" foreign key ("letter_id") references "sent_letters" ("id") on update cascade on delete cascade`,
    );
    this.addSql(`create index "letter_facts_letter_id_index" on "letter_facts" ("letter_id")`);
    this.addSql(`create index "letter_facts_name_at_index" on "letter_facts" ("name", "at")`);
    this.addSql(`create index "letter_replies_version_id_at_index" on "letter_replies" ("version_id", "at")`);
    this.addSql(`create index "customers_name_trgm" on "customers" using gin ("display_name" gin_trgm_ops)`);
    this.addSql(`create index "organisations_name_trgm" on "organisations" using gin ("name" gin_trgm_ops)`);
    this.addSql(`create index "messages_at_id_index" on "messages" ("at", "id")`);
    this.addSql(`create index "messages_person_id_at_index" on "messages" ("person_id", "at")`);
    this.addSql(`create index "cases_customer_id_opened_at_index" on "cases" ("customer_id", "opened_at")`);

    // Whoever asks the database for it: the record is what was said.
    this.addSql(`
      create function refuse_change_of_record() returns trigger language plpgsql as $$
      begin
        raise exception 'What was sent or received is on the record and cannot be changed' using errcode = 'restrict_violation';
      end $$`);
    this.addSql(`
      create trigger keep_letter before update on "sent_letters" for each row
        when ((old.message_id, old.person_id, old.language, old.subject, old.slips, old.trace, old.checks, old.proof, old.created_at)
          is distinct from (new.message_id, new.person_id, new.language, new.subject, new.slips, new.trace, new.checks, new.proof, new.created_at))
        execute function refuse_change_of_record()`);
    this.addSql(`
      create trigger keep_message before update on "messages" for each row
        when (old.state in ('sent', 'received')
          and ((old.direction, old.channel, old.from_name, old.from_address, old.to_address, old.copies, old.subject, old.text, old.html, old.message_id, old.person_id, old.at, old.sent_at)
            is distinct from (new.direction, new.channel, new.from_name, new.from_address, new.to_address, new.copies, new.subject, new.text, new.html, new.message_id, new.person_id, new.at, new.sent_at)
            or (old.raw_id is not null and old.raw_id is distinct from new.raw_id)
            or (old.state = 'sent' and new.state not in ('sent', 'refused'))))
        execute function refuse_change_of_record()`);
    this.addSql(`
      create trigger keep_sent_message before delete on "messages" for each row
        when (old.state = 'sent') execute function refuse_change_of_record()`);
  }
}
