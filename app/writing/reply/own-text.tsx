import { toPlainText } from "#core/document/text";
import type { Doc, TextChannel } from "#core/document/types";
import type { ContentVariant } from "#server/replies/content";
import { Select } from "../../ui/select";
import { t } from "../../words/writing";

interface Props {
  variant: ContentVariant;
  own: TextChannel | null;
  ownFor: readonly TextChannel[];
  onOwn: (channel: TextChannel | null) => void;
  changeVariant: (how: (one: ContentVariant) => ContentVariant) => void;
}

const channelText = (channel: TextChannel) =>
  channel === "chat" ? t("textForChats") : t("textForShortMessages");

/** Which text is written: the common one, or a channel’s own; and the way back to the common one. */
export function OwnText({ variant, own, ownFor, onOwn, changeVariant }: Props) {
  if (ownFor.length === 0) return null;
  const hasOwn = own !== null && variant.texts?.[own] !== undefined;
  return (
    <span className="flex items-baseline gap-3 text-sm">
      <Select
        label={t("whichText")}
        value={own ?? ""}
        options={[
          ["", t("textForAllChannels")],
          ...ownFor.map((channel) => [channel, channelText(channel)] as const),
        ]}
        onChange={(value) => onOwn(ownFor.find((channel) => channel === value) ?? null)}
        className="lined-field"
      />
      {hasOwn && (
        <button
          type="button"
          className="quiet-link"
          onClick={() =>
            changeVariant(({ texts, ...one }) => {
              const { [own]: _gone, ...others } = texts ?? {};
              return Object.keys(others).length > 0 ? { ...one, texts: others } : one;
            })
          }
        >
          {t("useTheCommonText")}
        </button>
      )}
    </span>
  );
}

/** The common text as a channel without formatting reads it, and the way to write its own. */
export function PlainText({
  document,
  channel,
  onWrite,
}: {
  document: Doc;
  channel: TextChannel | null;
  onWrite: () => void;
}) {
  return (
    <section aria-label={t("theCommonTextMadePlain")}>
      <p className="flex flex-wrap items-baseline gap-x-4 text-sm text-soft">
        {t("theCommonTextMadePlain")}
        <button type="button" className="quiet-link" onClick={onWrite}>
          {channel === "chat" ? t("writeOneForChats") : t("writeOneForShortMessages")}
        </button>
      </p>
      <div className="mt-3 font-serif text-letter whitespace-pre-wrap [overflow-wrap:anywhere]">
        {toPlainText(document.content, "narrow")}
      </div>
    </section>
  );
}
