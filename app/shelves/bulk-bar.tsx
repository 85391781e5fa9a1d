import { useRef, useState } from "react";
import type { BulkInput } from "#server/replies/filing";
import type { ShelfRow } from "#server/replies/shelves";
import { Select } from "../ui/select";
import { useFieldKeys } from "../ui/use-field-keys";
import { useShortcut } from "../ui/use-shortcut";
import { useBulk } from "./use-bulk";
import { Kbd } from "../ui/kbd";
import { sayDay } from "../ui/say-day";
import { emptySelection, type Selection } from "./selection";
import { DateField } from "../ui/date-field";
import { t } from "../words/shelves";

interface Props {
  selection: Selection;
  onSelect: (selection: Selection) => void;
  total: number;
  /** How many rows the page shows. */
  shown: number;
  /** The filter as an address has it. */
  filter: string;
  shelves: ShelfRow[];
  owners: { id: number; name: string }[];
  tags: string[];
}

/** A change that was chosen and not made yet. */
interface Chosen {
  change: BulkInput;
  /** What it does to so many replies, as in `Move 3 replies to On board`. */
  words: (count: number) => string;
}

/** What can be done with the selected replies: said first, done when it is confirmed; every change can be undone. */
export function BulkBar({ selection, onSelect, total, shown, filter, shelves, owners, tags }: Props) {
  const bulk = useBulk();
  const [busy, setBusy] = useState(false);
  const [chosen, setChosen] = useState<Chosen | null>(null);
  const count = selection.all ? total : selection.keys.size;
  if (count === 0) return null;

  const choose = (change: BulkInput, words: Chosen["words"]) => setChosen({ change, words });
  const make = async (change: BulkInput) => {
    setBusy(true);
    setChosen(null);
    const which = selection.all ? { filter } : { keys: [...selection.keys] };
    const changed = await bulk.make(which, change);
    setBusy(false);
    if (changed > 0) onSelect(emptySelection);
  };

  return (
    <section
      aria-label={t("selectedReplies")}
      className="sticky bottom-0 mt-auto flex flex-wrap items-center gap-x-5 gap-y-2 border-t-2 border-ink bg-sheet px-6 py-2.5 text-sm"
    >
      <strong className="tabular-nums">{t("countSelected", { count: count.toLocaleString("en-GB") })}</strong>
      {!selection.all && selection.keys.size >= shown && total > count && (
        <button
          type="button"
          className="quiet-link"
          onClick={() => onSelect({ all: true, filter, keys: new Set() })}
        >
          {t("allTotalFound", { total: total.toLocaleString("en-GB") })}
        </button>
      )}
      <button type="button" className="quiet-link" onClick={() => onSelect(emptySelection)}>
        {t("none")}
      </button>
      {chosen ? (
        <Confirmed
          words={chosen.words(count)}
          onYes={() => void make(chosen.change)}
          onNo={() => setChosen(null)}
        />
      ) : (
        <fieldset disabled={busy} className="ml-auto flex flex-wrap items-center gap-x-5 gap-y-2">
          <legend className="sr-only">{t("changeThem")}</legend>
          <Pick
            label={t("moveTo")}
            options={shelves.filter((shelf) => shelf.mayPublish).map((shelf) => [shelf.key, shelf.name])}
            onPick={(shelf) => {
              const name = shelves.find((one) => one.key === shelf)?.name ?? shelf;
              choose({ what: "move", shelf }, (count) => t("moveCountTo", { count, name }));
            }}
          />
          <TagForm
            tags={tags}
            onTag={(what, tag) =>
              what === "tag"
                ? choose({ what, tag }, (count) => t("addTheTagTo", { count, tag }))
                : choose({ what, tag }, (count) => t("removeTheTagFrom", { count, tag }))
            }
          />
          <Pick
            label={t("giveTo")}
            options={[
              ["", t("nobody")],
              ...owners.map(({ id, name }): [string, string] => [String(id), name]),
            ]}
            onPick={(id) => {
              const owner = id === "" ? null : Number(id);
              const name = owners.find((one) => one.id === owner)?.name ?? t("nobody");
              choose({ what: "owner", owner }, (count) => t("giveCountTo", { count, name }));
            }}
          />
          <ReviewForm
            onReview={(by) =>
              choose({ what: "review", by }, (count) => t("haveCountReviewed", { count, by: sayDay(by) }))
            }
          />
          <button
            type="button"
            className="quiet-link"
            onClick={() => choose({ what: "retire" }, (count) => t("retireCount", { count }))}
          >
            {t("retire")}
          </button>
          <button
            type="button"
            className="quiet-link"
            onClick={() => choose({ what: "restore" }, (count) => t("restoreCount", { count }))}
          >
            {t("restore")}
          </button>
        </fieldset>
      )}
    </section>
  );
}

/** What is about to be done, and the two ways on; the hand is on the one that does it. */
function Confirmed({ words, onYes, onNo }: { words: string; onYes: () => void; onNo: () => void }) {
  const place = useRef<HTMLDivElement>(null);
  useShortcut("leaveField", onNo, { within: place });
  return (
    <div
      ref={place}
      role="group"
      aria-label={t("confirmTheChange")}
      className="ml-auto flex items-center gap-x-5"
    >
      <button type="button" autoFocus className="filled-link" onClick={onYes}>
        {words}
      </button>
      <button type="button" className="quiet-link" onClick={onNo}>
        {t("cancel")}
      </button>
      <Kbd keys="Esc" />
    </div>
  );
}

function Pick({
  label,
  options,
  onPick,
}: {
  label: string;
  options: [string, string][];
  onPick: (value: string) => void;
}) {
  return (
    <Select
      label={label}
      value="-"
      placeholder={label}
      options={options}
      onChange={onPick}
      className="lined-field max-w-32"
    />
  );
}

function ReviewForm({ onReview }: { onReview: (by: string) => void }) {
  const [by, setBy] = useState("");
  return (
    <span className="flex items-center gap-2">
      <DateField label={t("reviewBy")} placeholder={t("reviewBy2")} value={by} onChange={setBy} />
      <button
        type="button"
        className="quiet-link"
        disabled={by === ""}
        onClick={() => {
          onReview(by);
          setBy("");
        }}
      >
        {t("set")}
      </button>
    </span>
  );
}

function TagForm({ tags, onTag }: { tags: string[]; onTag: (what: "tag" | "untag", tag: string) => void }) {
  const [tag, setTag] = useState("");
  const give = (what: "tag" | "untag") => {
    if (tag.trim() === "") return;
    onTag(what, tag.trim());
    setTag("");
  };
  const field = useFieldKeys({ keep: () => give("tag") });
  return (
    <span className="flex items-center gap-2">
      <input
        ref={field}
        aria-label={t("tag")}
        placeholder={t("tag2")}
        list="known-tags"
        value={tag}
        onChange={(event) => setTag(event.target.value)}
        className="lined-field w-24"
      />
      <datalist id="known-tags">
        {tags.map((one) => (
          <option key={one} value={one} />
        ))}
      </datalist>
      <button type="button" className="quiet-link" disabled={tag.trim() === ""} onClick={() => give("tag")}>
        {t("add")}
      </button>
      <button type="button" className="quiet-link" disabled={tag.trim() === ""} onClick={() => give("untag")}>
        {t("remove")}
      </button>
    </span>
  );
}
