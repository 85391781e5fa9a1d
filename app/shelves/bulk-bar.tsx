import { useRef, useState } from "react";
import type { BulkInput } from "#server/replies/filing";
import type { ShelfRow } from "#server/replies/shelves";
import { Select } from "../ui/select";
import { useFieldKeys } from "../ui/use-field-keys";
import { useShortcut } from "../ui/use-shortcut";
import { useBulk } from "./use-bulk";
import { counted } from "#core/text/counted";
import { Kbd } from "../ui/kbd";
import { sayDay } from "../ui/day";
import { emptySelection, type Selection } from "./selection";
import { DateField } from "../ui/date-field";

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
  /** What it does to the replies, as in `Move … to On board`: before and after how many they are. */
  words: [before: string, after: string];
}

/** What can be done with the selected replies: said first, done when it is confirmed; every change can be undone. */
export function BulkBar({ selection, onSelect, total, shown, filter, shelves, owners, tags }: Props) {
  const bulk = useBulk();
  const [busy, setBusy] = useState(false);
  const [chosen, setChosen] = useState<Chosen | null>(null);
  const count = selection.all ? total : selection.keys.size;
  if (count === 0) return null;

  const choose = (change: BulkInput, before: string, after = "") =>
    setChosen({ change, words: [before, after] });
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
      aria-label="Selected replies"
      className="sticky bottom-0 mt-auto flex flex-wrap items-center gap-x-5 gap-y-2 border-t-2 border-ink bg-sheet px-6 py-2.5 text-sm"
    >
      <strong className="tabular-nums">{count.toLocaleString("en-GB")} selected</strong>
      {!selection.all && selection.keys.size >= shown && total > count && (
        <button
          type="button"
          className="quiet-link"
          onClick={() => onSelect({ all: true, filter, keys: new Set() })}
        >
          all {total.toLocaleString("en-GB")} found
        </button>
      )}
      <button type="button" className="quiet-link" onClick={() => onSelect(emptySelection)}>
        none
      </button>
      {chosen ? (
        <Confirmed
          words={`${chosen.words[0]} ${counted(count, "reply", "replies")}${chosen.words[1]}`}
          onYes={() => void make(chosen.change)}
          onNo={() => setChosen(null)}
        />
      ) : (
        <fieldset disabled={busy} className="ml-auto flex flex-wrap items-center gap-x-5 gap-y-2">
          <legend className="sr-only">Change them</legend>
          <Pick
            label="Move to"
            options={shelves.filter((shelf) => shelf.mayPublish).map((shelf) => [shelf.key, shelf.name])}
            onPick={(shelf) => {
              const name = shelves.find((one) => one.key === shelf)?.name ?? shelf;
              choose({ what: "move", shelf }, "Move", ` to ${name}`);
            }}
          />
          <TagForm
            tags={tags}
            onTag={(what, tag) =>
              what === "tag"
                ? choose({ what, tag }, `Add the tag “${tag}” to`)
                : choose({ what, tag }, `Remove the tag “${tag}” from`)
            }
          />
          <Pick
            label="Give to"
            options={[["", "nobody"], ...owners.map(({ id, name }): [string, string] => [String(id), name])]}
            onPick={(id) => {
              const owner = id === "" ? null : Number(id);
              const name = owners.find((one) => one.id === owner)?.name ?? "nobody";
              choose({ what: "owner", owner }, "Give", ` to ${name}`);
            }}
          />
          <ReviewForm
            onReview={(by) => choose({ what: "review", by }, "Have", ` reviewed by ${sayDay(by)}`)}
          />
          <button type="button" className="quiet-link" onClick={() => choose({ what: "retire" }, "Retire")}>
            Retire
          </button>
          <button type="button" className="quiet-link" onClick={() => choose({ what: "restore" }, "Restore")}>
            Restore
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
      aria-label="Confirm the change"
      className="ml-auto flex items-center gap-x-5"
    >
      <button type="button" autoFocus className="filled-link" onClick={onYes}>
        {words}
      </button>
      <button type="button" className="quiet-link" onClick={onNo}>
        Cancel
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
      <DateField label="Review by" placeholder="review by" value={by} onChange={setBy} />
      <button
        type="button"
        className="quiet-link"
        disabled={by === ""}
        onClick={() => {
          onReview(by);
          setBy("");
        }}
      >
        set
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
        aria-label="Tag"
        placeholder="tag"
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
        add
      </button>
      <button type="button" className="quiet-link" disabled={tag.trim() === ""} onClick={() => give("untag")}>
        remove
      </button>
    </span>
  );
}
