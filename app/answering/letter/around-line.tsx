import { useMemo } from "react";
import { compose } from "#core/compose/compose";
import { toPlainText } from "#core/document/text";
import type { OpenCase } from "#server/answering/open";
import { Kbd } from "../../ui/kbd";
import { useShortcut } from "../../ui/use-shortcut";
import type { AnswerHandle } from "../use-answer";
import { aroundOffers, putAround, type AroundOffer } from "./around";

/** Offers the opening and closing that the letter lacks, below it: nothing moves in it while it is written. */
export function AroundLine({ open, answer }: { open: OpenCase; answer: AnswerHandle }) {
  const { editor, letter } = answer;
  const offers = useMemo(
    () => (letter ? aroundOffers(open, letter.letter, letter.slips, letter.inputs.language) : []),
    [open, letter],
  );
  const add = (some: AroundOffer[]) => {
    if (!editor || some.length === 0) return;
    putAround(editor, some);
    editor.view.focus();
  };
  useShortcut("addAround", () => add(offers));
  if (!letter || offers.length === 0) return null;
  const words = (offer: AroundOffer) =>
    toPlainText(
      compose({
        ...letter.inputs,
        subject: { from: "thread" },
        attachments: [],
        signature: null,
        slips: [offer.slip],
      }).blocks,
    ).replaceAll(/\s+/g, " ");
  return (
    <p className="mt-3 flex flex-wrap items-baseline gap-x-3 gap-y-1 text-sm text-soft">
      {offers.map((offer) => (
        <span key={offer.part}>
          No {offer.part} yet:{" "}
          <button type="button" className="quiet-link" onClick={() => add([offer])}>
            add “{words(offer)}”
          </button>
        </span>
      ))}
      <Kbd keys="Alt G" />
    </p>
  );
}
