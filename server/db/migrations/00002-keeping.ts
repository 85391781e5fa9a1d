import { Migration } from "@mikro-orm/migrations";

/** Keeping the library: working copies and proposals, search, pins, changes in bulk, usual replies, richer stationery. */
export class Migration00002Keeping extends Migration {
  override up(): void {
    this.#replies();
    this.#versions();
    this.#search();
    this.#keeping();
    this.#house();
  }

  #replies(): void {
    this.addSql(
      `alter table "replies" add column "with_booking" boolean not null default false, add column "copied_from_id" int null, add column "current_version_id" int null, add column "updated_at" timestamptz not null default now()`,
    );
    this.addSql(`create index "replies_owner_id_index" on "replies" ("owner_id")`);
    this.addSql(`create index "replies_tags" on "replies" using gin ("tags")`);
  }

  #versions(): void {
    this.addSql(
      `alter table "reply_versions" alter column "number" drop not null, add column "title" text null, add column "base_id" int null, add column "revision" int not null default 0, add column "updated_at" timestamptz not null default now(), add column "decided_by_id" int null, add column "decided_at" timestamptz null, add column "decision" text null`,
    );
    this.addSql(
      `update "reply_versions" v set "title" = r."title" from "replies" r where r."id" = v."reply_id"`,
    );
    this.addSql(`alter table "reply_versions" alter column "title" set not null`);
    this.addSql(
      `alter table "reply_versions" add constraint "reply_versions_decided_by_id_foreign" foreign key ("decided_by_id") references "people" ("id") on update cascade on delete set null`,
    );
    this.addSql(
      `create unique index "reply_versions_working" on "reply_versions" ("reply_id", "author_id") where "state" = 'draft'`,
    );
    this.addSql(
      `create index "reply_versions_proposed" on "reply_versions" ("reply_id") where "state" = 'proposed'`,
    );
    this.addSql(
      `update "replies" r set "current_version_id" = (select v."id" from "reply_versions" v where v."reply_id" = r."id" order by (v."state" = 'published') desc, v."number" desc limit 1)`,
    );
  }

  /** Terms of a variant in its own language, kept by triggers: titles weigh most, then tags and shelf, then the text. */
  #search(): void {
    this.addSql(
      `alter table "reply_variants" add column "original" jsonb null, add column "terms" tsvector null`,
    );
    this.addSql(`drop index "reply_variants_words"`);
    this.addSql(`
      create function language_dictionary(language text) returns regconfig language sql immutable parallel safe as $$
        select case left(language, 2)
          when 'en' then 'english' when 'de' then 'german' when 'fr' then 'french' when 'es' then 'spanish'
          when 'da' then 'danish' when 'nl' then 'dutch' when 'fi' then 'finnish' when 'hu' then 'hungarian'
          when 'it' then 'italian' when 'no' then 'norwegian' when 'nb' then 'norwegian' when 'pt' then 'portuguese'
          when 'ro' then 'romanian' when 'ru' then 'russian' when 'sv' then 'swedish' when 'tr' then 'turkish'
          else 'simple' end::regconfig
      $$`);
    this.addSql(`
      create function reply_variant_terms() returns trigger language plpgsql as $$
      declare
        dictionary regconfig := language_dictionary(new.language);
        filed record;
      begin
        select r.tags, s.name as shelf, v.title, v.blanks into filed
          from reply_versions v join replies r on r.id = v.reply_id join shelves s on s.id = r.shelf_id where v.id = new.version_id;
        new.terms :=
          setweight(to_tsvector(dictionary, coalesce(new.title, filed.title, '')), 'A') ||
          setweight(to_tsvector(dictionary, array_to_string(filed.tags, ' ') || ' ' || filed.shelf), 'B') ||
          setweight(to_tsvector(dictionary, coalesce(new.words, '')), 'C') ||
          setweight(to_tsvector(dictionary, coalesce((select string_agg(coalesce(b.value->>'label', replace(b.key, '_', ' ')), ' ') from jsonb_each(filed.blanks) b), '')), 'D');
        return new;
      end $$`);
    this.addSql(
      `create trigger reply_variant_terms before insert or update on "reply_variants" for each row execute function reply_variant_terms()`,
    );
    // The words of what is published, by which misspelled ones are understood.
    this.addSql(`create extension if not exists fuzzystrmatch`);
    this.addSql(`create table "search_words" ("word" text collate "C" primary key)`);
    this.addSql(`create index "search_words_trgm" on "search_words" using gin ("word" gin_trgm_ops)`);
    this.addSql(`
      create function learn_words(version int) returns void language sql as $$
        insert into search_words
        select distinct word from reply_variants t
          join reply_versions v on v.id = t.version_id join replies r on r.id = v.reply_id join shelves s on s.id = r.shelf_id
          cross join lateral regexp_split_to_table(
            lower(concat_ws(' ', coalesce(t.title, v.title), t.words, array_to_string(r.tags, ' '), s.name,
              (select string_agg(concat_ws(' ', b.key, b.value->>'label'), ' ') from jsonb_each(v.blanks) b))), '[^[:alnum:]]+') word
         where t.version_id = version and length(word) between 3 and 40
         order by word
            on conflict do nothing
      $$`);
    this.addSql(`
      create function reply_terms() returns trigger language plpgsql as $$
      begin
        if new.tags is distinct from old.tags or new.shelf_id is distinct from old.shelf_id then
          update reply_variants set words = words where version_id = new.current_version_id;
        end if;
        if new.current_version_id is not null then
          perform learn_words(new.current_version_id);
        end if;
        return null;
      end $$`);
    this.addSql(
      `create trigger reply_terms after update of "tags", "shelf_id", "current_version_id" on "replies" for each row execute function reply_terms()`,
    );
    this.addSql(`
      create function shelf_terms() returns trigger language plpgsql as $$
      begin
        update reply_variants t set words = words from replies r where r.shelf_id = new.id and t.version_id = r.current_version_id;
        insert into search_words
        select distinct word from regexp_split_to_table(lower(new.name), '[^[:alnum:]]+') word where length(word) between 3 and 40
            on conflict do nothing;
        return null;
      end $$`);
    this.addSql(
      `create trigger shelf_terms after update of "name" on "shelves" for each row execute function shelf_terms()`,
    );
    this.addSql(`update "reply_variants" set "words" = "words"`);
    this.addSql(
      `select learn_words("current_version_id") from "replies" where "current_version_id" is not null`,
    );
    this.addSql(`drop index "reply_variants_trgm"`);
    this.addSql(`create index "reply_variants_terms" on "reply_variants" using gin ("terms")`);
  }

  #keeping(): void {
    this.addSql(
      `create table "reply_pins" ("person_id" int not null, "reply_id" int not null, "position" int not null, constraint "reply_pins_pkey" primary key ("person_id", "reply_id"))`,
    );
    this.addSql(
      `alter table "reply_pins" add constraint "reply_pins_person_id_foreign" foreign key ("person_id") references "people" ("id") on update cascade on delete cascade`,
    );
    this.addSql(
      `alter table "reply_pins" add constraint "reply_pins_reply_id_foreign" foreign key ("reply_id") references "replies" ("id") on update cascade on delete cascade`,
    );
    this.addSql(
      `create table "file_uploads" ("id" serial primary key, "person_id" int not null, "file_id" int not null, "name" text not null, "content_type" text not null, "created_at" timestamptz not null default now())`,
    );
    this.addSql(
      `alter table "file_uploads" add constraint "file_uploads_person_id_foreign" foreign key ("person_id") references "people" ("id") on update cascade on delete cascade`,
    );
    this.addSql(
      `alter table "file_uploads" add constraint "file_uploads_file_id_foreign" foreign key ("file_id") references "files" ("id") on update cascade on delete cascade`,
    );
    this.addSql(
      `alter table "file_uploads" add constraint "file_uploads_person_id_file_id_unique" unique ("person_id", "file_id")`,
    );
    this.addSql(
      `create table "bulk_changes" ("id" serial primary key, "person_id" int not null, "at" timestamptz not null default now(), "words" text not null, "changes" jsonb not null, "undone_at" timestamptz null)`,
    );
    this.addSql(
      `alter table "bulk_changes" add constraint "bulk_changes_person_id_foreign" foreign key ("person_id") references "people" ("id") on update cascade on delete cascade`,
    );
    this.addSql(`create index "bulk_changes_person_id_index" on "bulk_changes" ("person_id")`);
  }

  #house(): void {
    this.addSql(`
      insert into "shelves" ("key", "name", "mark", "audience", "owner_id", "position")
      select 'own-' || p."id", 'My own', 'M', 'owner', p."id", 0 from "people" p
       where not exists (select 1 from "shelves" s where s."audience" = 'owner' and s."owner_id" = p."id")`);
    this.addSql(
      `create table "usual_replies" ("id" serial primary key, "team_id" int not null, "channel" text check ("channel" in ('email', 'chat', 'sms')) not null, "part" text check ("part" in ('opening', 'closing')) not null, "reply_id" int not null)`,
    );
    this.addSql(
      `alter table "usual_replies" add constraint "usual_replies_team_id_foreign" foreign key ("team_id") references "teams" ("id") on update cascade on delete cascade`,
    );
    this.addSql(
      `alter table "usual_replies" add constraint "usual_replies_reply_id_foreign" foreign key ("reply_id") references "replies" ("id") on update cascade on delete cascade`,
    );
    this.addSql(
      `alter table "usual_replies" add constraint "usual_replies_team_id_channel_part_unique" unique ("team_id", "channel", "part")`,
    );
    this.addSql(`
      insert into "usual_replies" ("team_id", "channel", "part", "reply_id")
      select t.id, c.channel, p.part, r.id
        from "teams" t
        cross join (values ('email'), ('chat'), ('sms')) c(channel)
        cross join (values ('opening'), ('closing')) p(part)
        join "replies" r on r."key" = case p.part when 'opening' then t."usual_opening" else t."usual_closing" end
          and c.channel = any(r."channels")`);
    this.addSql(`alter table "teams" drop column "usual_opening", drop column "usual_closing"`);
    this.addSql(
      `alter table "house_facts" add column "changed_by" text check ("changed_by" in ('agent', 'curator', 'lead')) not null default 'curator'`,
    );
    this.addSql(`alter table "house_fact_values" add column "created_at" timestamptz not null default now()`);
    this.addSql(
      `alter table "stationery" add column "text_colour" varchar(7) not null default '#17211d', add column "background" varchar(7) not null default '#ffffff', add column "logo_id" int null, add column "logo_type" text null, add column "logo_alt" text not null default ''`,
    );
    this.addSql(
      `alter table "stationery" add constraint "stationery_logo_id_foreign" foreign key ("logo_id") references "files" ("id") on update cascade on delete set null`,
    );
    this.addSql(`alter table "people" add column "list_columns" text[] null`);
  }
}
