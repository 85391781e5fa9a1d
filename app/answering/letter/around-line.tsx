import { useMemo } from "react";
import { lacking, type Surrounding } from "#core/checks/surroundings";
import { toPlainText } from "#core/document/text";
import type { OpenCase } from "#server/answering/open";
import { Kbd } from "../../ui/kbd";
import { useShortcut } from "../../ui/use-shortcut";
import type { AnswerHandle } from "../use-answer";
import { aroundOffers, putAround, type AroundOffer } from "./around";
import { composedAlone } from "./preview";
import { t } from "../../words/answering";
import { Sentence } from "../../words/sentence";

/** Offers the opening and closing that the letter lacks, below it: nothing moves in it while it is written. */
export function AroundLine({ open, answer }: { open: OpenCase; answer: AnswerHandle }) {
  const { editor, letter } = answer;
  const inputs = letter?.inputs;
  // By name, so that writing on leaves the offers as they are.
  const lacks = letter ? lacking(letter.letter, letter.slips).join(" ") : "";
  const offers = useMemo(() => {
    if (!inputs || lacks === "") return [];
    return aroundOffers(open, lacks.split(" ") as Surrounding[], inputs.language).map((offer) => ({
      ...offer,
      words: toPlainText(composedAlone({ ...inputs, signature: null }, [offer.slip]).content).replaceAll(
        /\s+/g,
        " ",
      ),
    }));
  }, [open, inputs, lacks]);
  const add = (some: AroundOffer[]) => {
    if (!editor || some.length === 0) return;
    putAround(editor, some);
    editor.view.focus();
  };
  useShortcut("addAround", () => add(offers));
  if (offers.length === 0) return null;
  return (
    <p className="mt-3 flex flex-wrap items-baseline gap-x-3 gap-y-1 text-sm text-soft">
      {offers.map((offer) => (
        <span key={offer.part}>
          <Sentence
            of={t}
            name={offer.part === "opening" ? "noOpeningYetAddWords" : "noClosingYetAddWords"}
            values={{ words: offer.words }}
            parts={[<button key="0" type="button" className="quiet-link" onClick={() => add([offer])} />]}
          />
        </span>
      ))}
      <Kbd keys="Alt G" />
    </p>
  );
}
