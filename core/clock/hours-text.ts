import type { Calendar } from "./calendar";
import { joined } from "./open-hours";

type Range = NonNullable<Calendar["hours"]["mon"]>[number];

/** “9”, “9:00”, “09.00” and “24:00”, with what may stand between two of them. */
const RANGE = /^(\d{1,2})(?:[:.](\d{2}))?\s*(?:-|–|—|to|bis)\s*(\d{1,2})(?:[:.](\d{2}))?$/i;

function minutesOf(hours: string, minutes = "00"): number | null {
  const [hour, minute] = [Number(hours), Number(minutes)];
  return minute > 59 || hour > 24 || (hour === 24 && minute > 0) ? null : hour * 60 + minute;
}

const written = (minutes: number) =>
  `${String(Math.floor(minutes / 60)).padStart(2, "0")}:${String(minutes % 60).padStart(2, "0")}`;

/**
 * The hours of a day, as people write them: “9–12, 13:00–17:30”; nothing for a closed day.
 * @returns ranges in order of time, those that touch or overlap as one; null where they cannot be read
 */
export function readHours(text: string): Range[] | null {
  const parts = text.split(/[,;]/).flatMap((part) => (part.trim() === "" ? [] : [part.trim()]));
  const spans = parts.map((part) => {
    const [, fromHour = "", fromMinute, untilHour = "", untilMinute] = RANGE.exec(part) ?? [];
    const [from, until] = [minutesOf(fromHour, fromMinute), minutesOf(untilHour, untilMinute)];
    const isRead = fromHour !== "" && from !== null && until !== null && from < until;
    return isRead ? { from, until } : null;
  });
  const read = spans.filter((span) => span !== null);
  if (read.length < spans.length) return null;
  return joined(read).map(({ from, until }): Range => [written(from), written(until)]);
}

/** The hours of a day, as `readHours` reads them. */
export function hoursText(ranges: readonly Range[]): string {
  return ranges.map(([from, until]) => `${from}–${until}`).join(", ");
}
