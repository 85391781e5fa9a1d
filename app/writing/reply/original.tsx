import { compareDocuments } from "#core/document/compare";
import type { Token } from "#core/tokens/catalogue";
import type { Content, ContentVariant } from "#server/replies/content";
import { ComparedLines } from "../../ui/compared";
import { LetterBlocks } from "../../ui/letter-blocks";
import { languageName } from "#core/language/tag";
import { ChipNames, inLabels } from "../editor/chip-names";
import { isStale } from "./variants";
import type { ChangeContent } from "./use-reply";
import { t } from "../../words/writing";

/** Beside a translation: the original that it follows, with what has changed in it since. */
export function Original({
  content,
  variant,
  tokens,
  change,
}: {
  content: Content;
  tokens: ReadonlyMap<string, Token>;
  variant: ContentVariant;
  change: ChangeContent;
}) {
  const [fallback] = content.variants;
  if (!fallback || fallback === variant) return null;
  const stale = isStale(content, variant);
  const update = (how: (one: ContentVariant) => ContentVariant) =>
    change((now) => ({
      ...now,
      variants: now.variants.map((one) => (one.language === variant.language ? how(one) : one)),
    }));
  return (
    <div className="flex flex-col gap-3">
      <p className="flex flex-wrap items-baseline gap-x-4 gap-y-1 text-sm">
        <strong>{t("theLanguageOriginal", { language: languageName(fallback.language) })}</strong>
        {stale && <span className="text-look">{t("changedSinceThisTranslation")}</span>}
        {(stale || variant.original === null) && (
          <button
            type="button"
            className="quiet-link"
            onClick={() =>
              update((one) => ({
                ...one,
                original: { subject: fallback.subject, document: fallback.document },
              }))
            }
          >
            {t("theTranslationFollowsItAgain")}
          </button>
        )}
        <button
          type="button"
          className="quiet-link ml-auto"
          onClick={() =>
            change((now) => ({
              ...now,
              variants: now.variants.filter((one) => one.language !== variant.language),
            }))
          }
        >
          {t("removeLanguage", { language: languageName(variant.language) })}
        </button>
        <button
          type="button"
          className="quiet-link"
          onClick={() =>
            change((now) => {
              const chosen = now.variants.find((one) => one.language === variant.language);
              if (!chosen) return now;
              const others = now.variants.filter((one) => one !== chosen);
              return { ...now, variants: [{ ...chosen, original: null }, ...others] };
            })
          }
        >
          {t("makeItTheFallback")}
        </button>
      </p>
      <ChipNames tokens={tokens} blanks={content.blanks}>
        {fallback.subject && (
          <p className="font-serif text-soft">
            {inLabels(fallback.subject, { tokens, blanks: content.blanks })}
          </p>
        )}
        {stale && variant.original ? (
          <ComparedLines lines={compareDocuments(variant.original.document, fallback.document)} />
        ) : (
          <div className="letter">
            <LetterBlocks blocks={fallback.document.content} />
          </div>
        )}
      </ChipNames>
    </div>
  );
}
