import { useState } from "react";
import * as z from "zod/mini";
import type { BulkInput } from "#server/replies/filing";
import type { ShelfRow } from "#server/replies/shelves";
import { useAct } from "../ui/act";
import { Select } from "../ui/select";
import { useToast } from "../ui/toast";
import { useFieldKeys } from "../ui/use-field-keys";
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

const done = z.object({
  id: z.nullable(z.number()),
  changed: z.number(),
  refused: z.number(),
  words: z.string(),
});
const undone = z.object({ undone: z.number(), stay: z.number() });

/** What can be done with the selected replies; every change can be undone. */
export function BulkBar({ selection, onSelect, total, shown, filter, shelves, owners, tags }: Props) {
  const act = useAct();
  const toast = useToast();
  const [busy, setBusy] = useState(false);
  const count = selection.all ? total : selection.keys.size;
  if (count === 0) return null;

  const undo = async (id: number) => {
    const result = await act(`/shelves/bulk/${id}/undo`, {}, undone);
    if (!result.ok) toast({ words: result.problem, tone: "stop" });
    else {
      const stay = result.data.stay > 0 ? `; ${result.data.stay} were changed since and stay` : "";
      toast({ words: `${result.data.undone} as before${stay}.` });
    }
  };
  const change = async (what: BulkInput) => {
    setBusy(true);
    const which = selection.all ? { filter } : { keys: [...selection.keys] };
    const result = await act("/shelves/bulk", { ...which, change: what }, done);
    setBusy(false);
    if (!result.ok) {
      toast({ words: result.problem, tone: "stop" });
      return;
    }
    const { id, changed, refused, words } = result.data;
    const left = refused > 0 ? ` ${refused} are not yours to change.` : "";
    if (id === null) toast({ words: `Nothing to change.${left}` });
    else
      toast({
        words: `${words}.${left}`,
        action: { label: "Undo", run: () => void undo(id) },
      });
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
      <fieldset disabled={busy} className="ml-auto flex flex-wrap items-center gap-x-5 gap-y-2">
        <legend className="sr-only">Change them</legend>
        <Pick
          label="Move to"
          options={shelves.filter((shelf) => shelf.mayPublish).map((shelf) => [shelf.key, shelf.name])}
          onPick={(shelf) => void change({ what: "move", shelf })}
        />
        <TagForm tags={tags} onTag={(what, tag) => void change({ what, tag })} />
        <Pick
          label="Give to"
          options={[["", "nobody"], ...owners.map(({ id, name }): [string, string] => [String(id), name])]}
          onPick={(id) => void change({ what: "owner", owner: id === "" ? null : Number(id) })}
        />
        <ReviewForm onReview={(by) => void change({ what: "review", by })} />
        <button type="button" className="quiet-link" onClick={() => void change({ what: "retire" })}>
          Retire
        </button>
        <button type="button" className="quiet-link" onClick={() => void change({ what: "restore" })}>
          Restore
        </button>
      </fieldset>
    </section>
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
        take off
      </button>
    </span>
  );
}
