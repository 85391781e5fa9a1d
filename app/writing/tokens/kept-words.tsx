import type { Recognised } from "#core/tokens/recognise";
import { placeholderText } from "#core/document/placeholder";
import { Checkbox } from "../../ui/checkbox";
import { Hint } from "../../ui/hint";
import { t } from "../../words/writing";

interface Props {
  found: Recognised[];
  refused: ReadonlySet<number>;
  onRefuse: (refused: ReadonlySet<number>) => void;
}

/** The values in an answer, each to become a token or a blank, or to stay as it is written. */
export function KeptWords({ found, refused, onRefuse }: Props) {
  const placed = found.map((one, index) => ({ one, index }));
  const lists = [
    { heading: t("fillsItselfForEveryCase"), of: placed.filter(({ one }) => one.blank === null) },
    {
      heading: t("looksLikeAValueAskFor"),
      of: placed.filter(({ one }) => one.blank !== null),
    },
  ].filter(({ of }) => of.length > 0);
  const set = (index: number, on: boolean) => {
    const next = new Set(refused);
    if (on) next.delete(index);
    else next.add(index);
    onRefuse(next);
  };
  return (
    <section aria-label={t("valuesOfThisCase")}>
      <h2 className="mb-2 font-bold">{t("valuesOfThisCase")}</h2>
      {found.length === 0 ? (
        <p className="text-sm text-soft">{t("nothingInTheseWordsLooksLike")}</p>
      ) : (
        <p className="mb-3 text-sm text-soft">{t("whatIsNotTickedStaysAs")}</p>
      )}
      {lists.map(({ heading, of }) => (
        <fieldset key={heading} className="mb-4">
          <legend className="text-sm font-semibold">{heading}</legend>
          <ul className="flex flex-col">
            {of.map(({ one, index }) => (
              <li key={`${one.from} ${one.words}`} className="border-b border-line py-1.5">
                <label className="flex items-baseline gap-2.5">
                  <Checkbox checked={!refused.has(index)} onChange={(on) => set(index, on)} />
                  <span className="font-serif">“{one.words}”</span>{" "}
                  <Hint words={placeholderText(one.node)}>
                    <span className="text-sm">
                      {one.blank === null ? t("isTheLabel", { label: one.label }) : one.label}
                    </span>
                  </Hint>{" "}
                  {one.blank === null && !one.certain && (
                    <span className="ml-auto text-sm text-look">{t("looksLikeIt")}</span>
                  )}
                </label>
              </li>
            ))}
          </ul>
        </fieldset>
      ))}
    </section>
  );
}

/** What is left as it is written until somebody says otherwise: a case’s own values fill themselves, others may be meant. */
export function refusedAtFirst(found: Recognised[]): ReadonlySet<number> {
  return new Set(found.flatMap(({ blank }, index) => (blank === null ? [] : [index])));
}
