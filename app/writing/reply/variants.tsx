import { useState } from "react";
import type { Content, ContentVariant } from "#server/replies/content";
import { languageName } from "#core/language/tag";
import { sameJson } from "./same-json";
import type { ChangeContent } from "./use-reply";
import { TabList } from "../../ui/tabs";
import { useFieldKeys } from "../../ui/use-field-keys";
import { t } from "../../words/writing";

interface Props {
  content: Content;
  onChoose: (language: string) => void;
  change: ChangeContent;
  /** Languages that other replies have, offered first. */
  known: string[];
}

/** Whether a translation follows an original that reads otherwise now. */
export function isStale(content: Content, variant: ContentVariant): boolean {
  const [fallback] = content.variants;
  if (!fallback || variant === fallback || variant.original === null) return false;
  const now = { subject: fallback.subject, document: fallback.document };
  return !sameJson(variant.original, now);
}

/** The languages of a reply as tabs; the first is the fallback, which others are translated from. */
export function Variants({ content, onChoose, change, known }: Props) {
  const [adding, setAdding] = useState(false);
  const [problem, setProblem] = useState<string | null>(null);
  const has = new Set(content.variants.map((one) => one.language));
  const offered = [...new Set([...known, "en", "de", "fr", "es", "it", "nl", "pt", "pl", "da", "sv"])].filter(
    (tag) => !has.has(tag),
  );
  const add = (tag: string) => {
    if (!/^[a-z]{2,3}(-[A-Za-z0-9]{2,8})*$/.test(tag)) {
      setProblem(t("writeTheLanguageAsAShort"));
      return;
    }
    if (has.has(tag)) {
      onChoose(tag);
      return;
    }
    change((now) => {
      const [fallback] = now.variants;
      if (!fallback) return now;
      const { subject, document } = fallback;
      // A translation begins with the original's words, so that no token or passage is forgotten.
      const made: ContentVariant = {
        language: tag,
        title: null,
        subject,
        document,
        original: { subject, document },
      };
      return { ...now, variants: [...now.variants, made] };
    });
    onChoose(tag);
    setAdding(false);
    setProblem(null);
  };
  const field = useFieldKeys({ keep: (typed) => add(typed.trim()), leave: () => setAdding(false) });
  return (
    <div className="flex flex-wrap items-baseline gap-x-5 gap-y-1 text-sm">
      <TabList
        label={t("languages")}
        tabs={content.variants.map((variant, index) => ({
          value: variant.language,
          words: (
            <>
              {languageName(variant.language)}
              {index === 0 && content.variants.length > 1 && (
                <span className="font-normal text-soft"> {t("fallback")}</span>
              )}
              {isStale(content, variant) && <span className="font-normal text-look"> {t("stale")}</span>}
            </>
          ),
        }))}
      />
      {adding ? (
        <span className="flex items-baseline gap-2">
          <input
            ref={field}
            aria-label={t("languageToAdd")}
            list="languages-to-add"
            placeholder={t("deFrPtBr")}
            className="lined-field w-24"
            autoFocus
          />
          <datalist id="languages-to-add">
            {offered.map((tag) => (
              <option key={tag} value={tag}>
                {languageName(tag)}
              </option>
            ))}
          </datalist>
          {problem && <span className="text-stop">{problem}</span>}
        </span>
      ) : (
        <button type="button" className="quiet-link" onClick={() => setAdding(true)}>
          {t("addALanguage")}
        </button>
      )}
    </div>
  );
}
