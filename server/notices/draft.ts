import type { EntityManager } from "@mikro-orm/postgresql";
import { textFor } from "#core/document/texts";
import type { Doc, Texts } from "#core/document/types";
import { sameLanguage } from "#core/language/tag";
import type { LoadedDraft } from "../answering/draft";
import { withDefinitions } from "../answering/draft";
import { usualOn } from "../answering/open";
import type { Case } from "../db/entities/cases";
import { query } from "../db/sql";
import type { Settings } from "../house/settings";

interface Variant {
  key: string;
  version: number;
  subjectIsUsed: boolean;
  language: string;
  fallback: boolean;
  subject: string | null;
  document: Doc;
  texts: Texts["texts"];
}

/**
 * A letter of one reply, as somebody would begin it: in the customer's language where the reply is written in it, with the
 * usual opening and closing around it where they are too.
 * @param key of a reply on the shelf
 * @param language BCP 47 tag of the customer's
 * @returns null where the reply is on no shelf, or not for the case's channel
 */
export async function draftOf(
  em: EntityManager,
  settings: Settings,
  subject: Case,
  key: string,
  language: string,
): Promise<LoadedDraft | null> {
  const usual = usualOn(settings, subject);
  const keyOf = (part: "opening" | "closing") => usual.find((one) => one.part === part)?.key ?? "";
  const keys = [keyOf("opening"), key, keyOf("closing")];
  const variants = await query<Variant>(
    em,
    `select r.key, v.id as version, v.use_template_subject as "subjectIsUsed", t.language, t.fallback, t.subject, t.document, t.texts
       from replies r join reply_versions v on v.id = r.current_version_id and v.state = 'published'
       join reply_variants t on t.version_id = v.id
      where r.key = any(?) and r.state = 'shelved' and ? = any(r.channels) order by t.id`,
    [keys, subject.channel],
  );
  const written = (of: string, tag: string) =>
    variants.find((one) => one.key === of && sameLanguage(one.language, tag));
  const main = written(key, language) ?? variants.find((one) => one.key === key && one.fallback);
  if (!main) return null;
  const slips = keys.flatMap((one) => (one === key ? main : (written(one, main.language) ?? [])));
  const isUsed = main.subjectIsUsed && main.subject !== null;
  return {
    version: 0,
    language: sameLanguage(main.language, language) ? language : main.language,
    subject: { from: isUsed ? "reply" : "thread" },
    updatedAt: "",
    slips: await withDefinitions(
      em,
      slips.map((slip) => ({
        ...{ uid: slip.key, versionId: slip.version, language: slip.language, values: {} },
        document: textFor(slip, subject.channel),
      })),
    ),
    offers: [],
    to: null,
    copies: null,
    attachments: [],
  };
}
