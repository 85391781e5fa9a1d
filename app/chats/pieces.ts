import { fromPlainText } from "#core/document/plain";
import type { DraftSlip } from "#server/answering/draft";
import * as z from "zod/mini";
import { askChat, type Asked } from "./ask";
import { t } from "../words/chats";

const said = z.union([
  z.object({ ok: z.literal(true), piece: z.number() }),
  z.object({ ok: z.literal(false), problem: z.string() }),
]);

/** Says slips as a piece. @param key of this piece alone: asked again, it is said once */
export async function sayPiece(
  number: number,
  key: string,
  language: string,
  slips: Pick<DraftSlip, "id" | "versionId" | "language" | "document" | "values">[],
): Promise<Asked<number>> {
  const asked = await askChat(`/chats/${number}/said`, said, {
    key,
    language,
    slips: slips.map(({ id, ...slip }) => ({
      uid: id,
      versionId: slip.versionId,
      language: slip.language,
      document: slip.document,
      values: slip.values,
    })),
  });
  if (!asked.ok) return asked;
  return asked.data.ok
    ? { ok: true, data: asked.data.piece }
    : { ok: false, problem: asked.data.problem || t("theServerDidNotTakeIt") };
}

/** The agent's own words as a slip. */
export function ownPiece(
  text: string,
  language: string,
): Pick<DraftSlip, "id" | "versionId" | "language" | "document" | "values"> {
  return {
    id: "own",
    versionId: null,
    language,
    document: { type: "doc", content: fromPlainText(text) },
    values: {},
  };
}
