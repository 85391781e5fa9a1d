import type { Filing, OpenReply } from "#server/replies/open-writing";
import { Button } from "../ui/button";
import { Checkbox } from "../ui/checkbox";
import { sameWords, Select } from "../ui/select";
import type { FilingHandle } from "./use-filing";
import { DateField } from "../ui/date-field";

const PARTS: Filing["part"][] = ["opening", "answer", "closing"];

const row = "grid grid-cols-[5rem_minmax(0,1fr)] items-baseline gap-2";

/** Where a reply stands and what it is for: everything about it but its words. */
export function FilingForm({ open, handle }: { open: OpenReply; handle: FilingHandle }) {
  const { shelves, owners, known } = open;
  const { filing, set, changed, save, problem, busy } = handle;
  const list = (text: string) => [
    ...new Set(
      text
        .split(",")
        .map((one) => one.trim())
        .filter(Boolean),
    ),
  ];
  return (
    <form
      className="flex flex-col gap-3 text-sm"
      onSubmit={(event) => {
        event.preventDefault();
        void save();
      }}
    >
      <fieldset disabled={!open.mayFile} className="flex flex-col gap-3">
        <legend className="sr-only">Filing</legend>
        <label className={row}>
          Shelf
          <Select
            value={filing.shelf}
            options={shelves.map((shelf) => [shelf.key, shelf.name] as const)}
            onChange={(shelf) => set({ shelf })}
            disabled={!open.mayFile}
          />
        </label>
        <label className={row}>
          Part
          <Select
            value={filing.part}
            options={sameWords(PARTS)}
            onChange={(part) => set({ part })}
            disabled={!open.mayFile}
          />
        </label>
        <div className={row}>
          Channels
          <span className="flex gap-4">
            {(["email", "chat", "sms"] as const).map((channel) => (
              <label key={channel} className="flex items-center gap-1.5">
                <Checkbox
                  checked={filing.channels.includes(channel)}
                  disabled={!open.mayFile}
                  onChange={(on) =>
                    set({
                      channels: on
                        ? [...filing.channels, channel]
                        : filing.channels.filter((one) => one !== channel),
                    })
                  }
                />
                {channel === "sms" ? "SMS" : channel}
              </label>
            ))}
          </span>
        </div>
        <label className={row}>
          Tags
          <input
            className="lined-field"
            defaultValue={filing.tags.join(", ")}
            placeholder="refund, weather"
            list="all-tags"
            onChange={(event) => set({ tags: list(event.target.value) })}
          />
        </label>
        <datalist id="all-tags">
          {known.tags.map((tag) => (
            <option key={tag} value={tag} />
          ))}
        </datalist>
        <div className={row}>
          Is about
          <span className="flex flex-col gap-1.5">
            <input
              aria-label="Topics"
              className="lined-field"
              defaultValue={filing.topics.join(", ")}
              placeholder={`any case; or topics, as in ${known.topics[0] ?? "refunds"}`}
              onChange={(event) => set({ topics: list(event.target.value) })}
            />
            <label className="flex items-center gap-1.5">
              <Checkbox
                checked={filing.withBooking}
                disabled={!open.mayFile}
                onChange={(withBooking) => set({ withBooking })}
              />
              only cases with a booking
            </label>
          </span>
        </div>
        <label className={row}>
          Owner
          <Select
            value={filing.owner === null ? "" : String(filing.owner)}
            options={[["", "nobody"], ...owners.map(({ id, name }) => [String(id), name] as const)]}
            onChange={(owner) => set({ owner: owner === "" ? null : Number(owner) })}
            disabled={!open.mayFile}
          />
        </label>
        <div className={row}>
          Review by
          <DateField
            label="Review by"
            value={filing.reviewBy ?? ""}
            onChange={(reviewBy) => set({ reviewBy: reviewBy || null })}
          />
        </div>
        <div className={row}>
          Season
          <span className="flex flex-wrap items-baseline gap-2">
            <DateField
              label="Season from"
              value={filing.seasonFrom ?? ""}
              onChange={(day) => set({ seasonFrom: day || null })}
            />
            to
            <DateField
              label="Season until"
              value={filing.seasonUntil ?? ""}
              min={filing.seasonFrom ?? undefined}
              onChange={(day) => set({ seasonUntil: day || null })}
            />
          </span>
        </div>
        <label className={row}>
          Note
          <textarea
            className="boxed-field"
            rows={3}
            maxLength={5000}
            placeholder="For colleagues; never sent"
            value={filing.note ?? ""}
            onChange={(event) => set({ note: event.target.value || null })}
          />
        </label>
        {open.mayFile ? (
          <span className="flex items-center gap-4">
            <Button type="submit" look={changed ? "filled" : "quiet"} disabled={!changed || busy}>
              File it so
            </Button>
            {changed && <span className="text-look">not filed yet</span>}
          </span>
        ) : (
          <p className="text-soft">Curators file replies on shared shelves.</p>
        )}
      </fieldset>
      {problem && (
        <p role="alert" className="text-stop">
          {problem}
        </p>
      )}
    </form>
  );
}
