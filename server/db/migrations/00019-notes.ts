import { Migration } from "@mikro-orm/migrations";

/** Notes between colleagues, and topics and teams of cases that somebody sets. */
export class Migration00019Notes extends Migration {
  override up(): void {
    const key = (table: string, column: string, of: string, deletion: string) =>
      this.addSql(
        `alter table "${table}" add constraint "${table}_${column}_foreign" foreign key ("${column}") references "${of}" ("id") on update cascade${deletion}`,
      );
    this.addSql(
      `create table "notes" ("id" serial primary key, "case_id" int not null, "person_id" int not null, "text" text not null, "at" timestamptz not null)`,
    );
    this.addSql(`create index "notes_case_id_index" on "notes" ("case_id")`);
    key("notes", "case_id", "cases", " on delete cascade");
    key("notes", "person_id", "people", "");
    this.addSql(
      `create table "note_mentions" ("note_id" int not null, "person_id" int not null, "seen_at" timestamptz null, constraint "note_mentions_pkey" primary key ("note_id", "person_id"))`,
    );
    this.addSql(
      `create index "note_mentions_unseen" on "note_mentions" ("person_id") where "seen_at" is null`,
    );
    key("note_mentions", "note_id", "notes", " on delete cascade");
    key("note_mentions", "person_id", "people", " on delete cascade");
    for (const table of ["case_changes", "case_events"])
      this.addSql(`alter table "${table}" drop constraint "${table}_kind_check"`);
    this.addSql(
      `alter table "case_changes" add constraint "case_changes_kind_check" check ("kind" in ('joined', 'split', 'moved', 'message moved', 'state', 'assigned', 'topic'))`,
    );
    this.addSql(
      `alter table "case_events" add constraint "case_events_kind_check" check ("kind" in ('opened', 'received', 'queued', 'called back', 'sent', 'refused', 'tried again', 'set aside', 'reopened', 'address kept', 'handed over', 'arrived', 'begun', 'forwarded', 'joined', 'split', 'moved', 'message moved', 'undone', 'pressed', 'chat ended', 'state', 'assigned', 'topic'))`,
    );
  }
}
