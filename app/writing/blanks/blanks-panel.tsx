import { useState } from "react";
import { steeringBlanks } from "#core/conditions/coverage";
import { blankLabel } from "#core/tokens/blanks";
import type { Content } from "#server/replies/content";
import { SortableList } from "../../ui/sortable-list";
import { BlankForm } from "./blank-form";
import { addBlank } from "./new-blank";
import type { ChangeContent } from "../reply/use-reply";
import { t } from "../../words/writing";

interface Props {
  content: Content;
  /** Names of the blanks that the words show. */
  inWords: ReadonlySet<string>;
  chosen: string | null;
  onChoose: (name: string | null) => void;
  change: ChangeContent;
  /** Puts a blank into the words at the cursor. */
  onInsert: (name: string) => void;
}

/** The blanks of a reply, in the order in which they are filled. */
export function BlanksPanel({ content, inWords, chosen, onChoose, change, onInsert }: Props) {
  const { blanks, passages } = content;
  const [words, setWords] = useState("");
  const steering = new Set(steeringBlanks(passages));
  const reorder = (names: string[]) =>
    change((now) => ({
      ...now,
      blanks: Object.fromEntries(
        names.flatMap((name) => (now.blanks[name] ? [[name, now.blanks[name]]] : [])),
      ),
    }));
  const blank = chosen === null ? undefined : blanks[chosen];
  return (
    <div className="flex flex-col gap-3 text-sm">
      {Object.keys(blanks).length === 0 && <p className="text-soft">{t("aBlankIsWhatOnlyA")}</p>}
      <SortableList
        label={t("blanksInTheOrderInWhich")}
        keys={Object.keys(blanks)}
        nameOf={(name) => blankLabel(name, blanks[name])}
        onOrder={reorder}
        fixed={Object.keys(blanks).length < 2}
        className="flex flex-col"
        itemClassName="flex items-baseline gap-2.5 border-b border-line py-1.5"
      >
        {(name, handle, index) => {
          const one = blanks[name];
          if (!one) return null;
          return (
            <>
              {handle}
              <span className="w-4 text-soft tabular-nums">{index + 1}</span>
              <button
                type="button"
                className={`chip-blank px-1 font-serif ${name === chosen ? "font-bold" : ""}`}
                aria-expanded={name === chosen}
                onClick={() => onChoose(name === chosen ? null : name)}
              >
                {blankLabel(name, one)}
              </button>
              <span className="text-soft">
                {[
                  one.kind.replace("_", " "),
                  ...(steering.has(name) ? [t("steers")] : []),
                  ...(one.printed ? [] : [t("notPrinted")]),
                  ...(inWords.has(name) || steering.has(name) ? [] : [t("notUsedYet")]),
                ].join(", ")}
              </span>
              <button type="button" className="quiet-link ml-auto" onClick={() => onInsert(name)}>
                {t("insert")}
              </button>
            </>
          );
        }}
      </SortableList>
      <form
        className="flex items-baseline gap-2"
        onSubmit={(event) => {
          event.preventDefault();
          const made = addBlank(blanks, words);
          if (!made) return;
          change((now) => ({ ...now, blanks: { ...now.blanks, [made.name]: made.blank } }));
          setWords("");
          onChoose(made.name);
        }}
      >
        <input
          aria-label={t("nameOfANewBlank")}
          placeholder={t("whatIsAsked")}
          className="lined-field grow"
          value={words}
          maxLength={200}
          onChange={(event) => setWords(event.target.value)}
        />
        <button type="submit" className="quiet-link" disabled={words.trim() === ""}>
          {t("addABlank")}
        </button>
      </form>
      {chosen !== null && blank && (
        <div data-chosen>
          <BlankForm
            key={chosen}
            name={chosen}
            blank={blank}
            used={inWords.has(chosen) || steering.has(chosen)}
            onChange={(next) => change((now) => ({ ...now, blanks: { ...now.blanks, [chosen]: next } }))}
            onRemove={() => {
              onChoose(null);
              change((now) => {
                const { [chosen]: _gone, ...others } = now.blanks;
                return { ...now, blanks: others };
              });
            }}
          />
        </div>
      )}
    </div>
  );
}
