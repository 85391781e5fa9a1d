import { useState, type ReactNode } from "react";
import { languageName, primary, sameLanguage } from "#core/language/tag";
import { TabList, TabPanel, Tabs } from "../ui/tabs";
import { t } from "../words/setup";

/** A language as setup calls it: “English”, of whatever region. */
export function spoken(tag: string): string {
  return languageName(primary(tag));
}

/**
 * The languages in which something may stand beside the one that it was written in first: the house's, and those that it has.
 * @param texts what it has, by the tags of their languages
 */
export function otherLanguages(
  first: string,
  languages: string[],
  texts: Readonly<Record<string, unknown>>,
): string[] {
  const all = [...new Set([...languages, ...Object.keys(texts)])];
  return all.filter((language) => !sameLanguage(language, first));
}

interface Props {
  /** What is written in them, for who does not see the tabs. */
  label: string;
  /** The first is what others are written after. */
  languages: string[];
  /** Whether there is a text in a language. */
  has: (language: string) => boolean;
  /** Whether it is worth saying that a language has none. */
  needed?: boolean;
  /** Called with the language that shows from then on. */
  onChoose?: (language: string) => void;
  children: (language: string) => ReactNode;
}

/** The same thing in several languages, one at a time; what was begun in one stays while another shows. */
export function LanguageTabs({ label, languages, has, needed = true, onChoose, children }: Props) {
  const [first = "en"] = languages;
  const [chosen, setChosen] = useState(first);
  const [seen, setSeen] = useState<readonly string[]>([first]);
  if (languages.length < 2) return children(first);
  return (
    <Tabs
      value={chosen}
      onChange={(language) => {
        setChosen(language);
        onChoose?.(language);
        setSeen((before) => (before.includes(language) ? before : [...before, language]));
      }}
    >
      <TabList
        label={label}
        tabs={languages.map((language) => ({
          value: language,
          words:
            has(language) || !needed ? (
              spoken(language)
            ) : (
              <>
                {spoken(language)} <span className="font-normal text-soft">{t("noneYet")}</span>
              </>
            ),
        }))}
        className="mt-2 gap-x-5 text-sm"
      />
      {languages.map((language) => (
        <TabPanel key={language} value={language} kept>
          {seen.includes(language) && children(language)}
        </TabPanel>
      ))}
    </Tabs>
  );
}
