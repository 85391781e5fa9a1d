import { useMemo } from "react";
import { fillOwn } from "#core/compose/fill-own";
import { catalogue } from "#core/tokens/catalogue";
import type { OpenCase } from "#server/answering/open";
import { LetterBlocks } from "../../ui/letter-blocks";

/** The signature that will stand under the letter, once. */
export function Signature({ open }: { open: OpenCase }) {
  const blocks = useMemo(() => {
    if (!open.signature) return [];
    const style = { language: open.draft?.language ?? open.language, timeZone: open.context.time_zone };
    return fillOwn("signature", open.signature, { context: open.context, style, tokens: catalogue(open.own) })
      .blocks;
  }, [open]);
  if (blocks.length === 0) return null;
  return (
    <div aria-label="Signature" role="group" className="letter text-soft">
      <LetterBlocks blocks={blocks} />
    </div>
  );
}
