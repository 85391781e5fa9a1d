import { useMemo } from "react";
import { styleOf } from "#core/compose/compose";
import { readIn } from "#core/language/written";
import { fillOwn } from "#core/compose/fill-own";
import { catalogue } from "#core/tokens/catalogue";
import type { OpenCase } from "#server/answering/open";
import { LetterBlocks } from "../../ui/letter-blocks";
import { t } from "../../words/answering";

/** The signature that will stand under the letter, once. */
export function Signature({ open }: { open: OpenCase }) {
  const blocks = useMemo(() => {
    if (!open.signature) return [];
    const wanted = open.draft?.language ?? open.language;
    const { text, language } = readIn(open.signature, wanted);
    const style = styleOf({ language: wanted, context: open.context }, { language: language ?? undefined });
    return fillOwn("signature", text, { context: open.context, style, tokens: catalogue(open.own) }).blocks;
  }, [open]);
  if (blocks.length === 0) return null;
  return (
    <div aria-label={t("signature")} role="group" className="letter text-soft">
      <LetterBlocks blocks={blocks} />
    </div>
  );
}
