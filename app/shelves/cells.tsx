import type { ReplyColumn } from "#server/replies/filter";
import type { ReplyRow } from "#server/replies/list";
import { channelName, partName, stateName } from "#core/words/named";
import { Mark } from "../ui/mark";
import { sayDay, sayDayShort } from "../ui/say-day";
import { relativeTime, useClock } from "../ui/time";
import { t } from "../words/shelves";

/** What is not as usual about a reply, in words. */
export function Notes({ row }: { row: ReplyRow }) {
  const { season } = row;
  const notes = [
    row.state === "shelved" ? null : row.state,
    row.waiting > 0 ? t("waitingWaitingToBeChecked", { waiting: row.waiting }) : null,
    season.out ? t("outOfSeasonOfferedSeason", { season: seasonWords(season) }) : null,
    row.reviewDue ? t("toBeReviewedSinceValue", { value: row.reviewBy ? sayDay(row.reviewBy) : "" }) : null,
  ].filter((note) => note !== null);
  return notes.length > 0 ? <p className="text-sm text-look">{notes.join("; ")}</p> : null;
}

function seasonWords({ from, until }: ReplyRow["season"]): string {
  if (from && until) return t("fromUntil", { from: sayDay(from), until: sayDay(until) });
  return from ? t("fromDay", { from: sayDay(from) }) : t("untilDay", { until: until ? sayDay(until) : "" });
}

/** A text with what was searched marked in it. */
export function Found({ pieces }: { pieces: { text: string; found: boolean }[] }) {
  return pieces.map((piece, index) =>
    piece.found ? (
      <mark key={index} className="bg-look-wash font-semibold text-ink">
        {piece.text}
      </mark>
    ) : (
      piece.text
    ),
  );
}

function Tags({ tags, searched }: { tags: string[]; searched: string }) {
  const words = searched.toLowerCase().split(/\s+/).filter(Boolean);
  return tags.map((tag, index) => {
    const found = words.some((word) => tag.toLowerCase().includes(word));
    return (
      <span key={tag}>
        {index > 0 && ", "}
        {found ? <Found pieces={[{ text: tag, found }]} /> : tag}
      </span>
    );
  });
}

export function Cell({ row, column, searched }: { row: ReplyRow; column: ReplyColumn; searched: string }) {
  const { now, timeZone } = useClock();
  switch (column) {
    case "shelf":
      return (
        <span className="flex items-baseline gap-1.5 whitespace-nowrap">
          <Mark letters={row.shelf.mark} /> {row.shelf.name}
        </span>
      );
    case "part":
      return partName(row.part);
    case "state":
      return <span className="whitespace-nowrap">{stateName(row.state)}</span>;
    case "tags":
      return <Tags tags={row.tags} searched={searched} />;
    case "channels":
      return row.channels.map(channelName).join(", ");
    case "languages":
      return row.languages.join(", ");
    case "about":
      return [...row.topics, ...(row.withBooking ? [t("withABooking")] : [])].join(", ") || t("anyCase");
    case "owner":
      return row.owner ?? "";
    case "uses":
      return <span className="tabular-nums">{row.uses === 0 ? "" : row.uses}</span>;
    case "used":
      return row.lastUsed ? relativeTime(Date.parse(row.lastUsed), now, timeZone) : t("never");
    case "review":
      return <span className="tabular-nums">{row.reviewBy && sayDayShort(row.reviewBy)}</span>;
    case "changed":
      return (
        <span className="whitespace-nowrap">{relativeTime(Date.parse(row.changed), now, timeZone)}</span>
      );
  }
}
