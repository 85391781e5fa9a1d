import { Link } from "react-router";
import type { WaitingRow } from "#server/cases/waiting";
import { exactTime, Time, timeLeft, useClock } from "../ui/time";
import { fitWords } from "#core/ranking/words";
import type { Best } from "#server/ranking/kept";
import { Mark } from "../ui/mark";
import type { AlikeGroup } from "./alike";
import { bandOf, type Band } from "./bands";
import { Hint } from "../ui/hint";

interface Selection {
  best: Record<number, Best>;
  selected: number | null;
  onSelect: (number: number) => void;
}

const bar: Record<Band, string> = {
  "Past due": "bg-stop",
  "Within the hour": "bg-look",
  Today: "bg-accent",
  Later: "bg-line",
};

/** Cases along the time that is left for them. */
export function Ruler({
  groups,
  ...selection
}: { groups: { band: Band; rows: WaitingRow[] }[] } & Selection) {
  return (
    <div>
      {groups.map(({ band, rows }) => (
        <section key={band} aria-label={band} className="flex">
          <h2 className="w-18 shrink-0 pt-2.5 pl-3 text-sm sm:w-28 sm:pl-6 sm:text-base leading-tight font-bold">
            {band}
            <span className="block font-normal text-soft tabular-nums">{rows.length}</span>
          </h2>
          <div className={`w-1.5 shrink-0 ${bar[band]}`} />
          <ul className="min-w-0 grow">
            {rows.map((row) => (
              <Row key={row.number} row={row} when={<Due row={row} band={band} />} {...selection} />
            ))}
          </ul>
        </section>
      ))}
    </div>
  );
}

/** Cases under the reply that fits them best, to answer one after the other. */
export function Alike({ groups, ...selection }: { groups: AlikeGroup[] } & Selection) {
  const { now, timeZone } = useClock();
  return (
    <div>
      {groups.map(({ reply, rows }) => {
        const name = reply?.title ?? "No sure reply";
        return (
          <section key={reply?.key ?? ""} aria-label={name}>
            <h2 className="flex items-center gap-3 border-t border-line px-6 pt-4 pb-2 font-bold">
              {reply && <Mark letters={reply.mark} />}
              <span className="truncate">{name}</span>
              <span className="font-normal text-soft tabular-nums">{rows.length}</span>
            </h2>
            <ul className="pl-6">
              {rows.map((row) => (
                <Row
                  key={row.number}
                  row={row}
                  when={<Due row={row} band={bandOf(row.answerBy, now, timeZone)} />}
                  underReply={reply !== null}
                  {...selection}
                />
              ))}
            </ul>
          </section>
        );
      })}
    </div>
  );
}

/** Cases by what happened last. */
export function PlainRows({ rows, ...selection }: { rows: WaitingRow[] } & Selection) {
  return (
    <ul className="pl-6">
      {rows.map((row) => (
        <Row
          key={row.number}
          row={row}
          when={<Time at={row.updatedAt} className="text-soft" />}
          {...selection}
        />
      ))}
    </ul>
  );
}

function Due({ row, band }: { row: WaitingRow; band: Band }) {
  const { now, timeZone } = useClock();
  if (row.answerBy === null) return <span className="text-soft">no time set</span>;
  const due = Date.parse(row.answerBy);
  return (
    <Hint words={`Answer by ${exactTime(due, timeZone)}`}>
      <time dateTime={row.answerBy} className={band === "Past due" ? "font-bold text-stop" : ""}>
        {timeLeft(due, now, timeZone)}
      </time>
    </Hint>
  );
}

function Row({
  row,
  when,
  best,
  selected,
  onSelect,
  underReply = false,
}: {
  row: WaitingRow;
  when: React.ReactNode;
  /** Whether it stands under its best reply, which need not be told again. */
  underReply?: boolean;
} & Selection) {
  const chosen = row.number === selected;
  const name = row.organisation ?? row.customer;
  return (
    <li className={`border-t border-line ${chosen ? "bg-wash" : ""}`}>
      <Link
        id={`case-${row.number}`}
        to={`/cases/${row.number}`}
        onFocus={() => onSelect(row.number)}
        onMouseEnter={() => onSelect(row.number)}
        className="grid grid-cols-[4.6rem_1fr] sm:grid-cols-[6.5rem_1fr_auto] items-baseline gap-x-3 gap-y-2 px-3.5 py-2 focus-visible:outline-offset-[-2px]"
      >
        <span className="truncate text-sm tabular-nums">{when}</span>
        <span className="truncate">
          <strong className="mr-1.5">{name}</strong>
          <span className="font-serif text-letter">
            {row.subject && `${row.subject} `}
            <span className={row.subject ? "text-soft" : ""}>{row.words.slice(0, 160)}</span>
          </span>
        </span>
        <BestLine best={best[row.number]} titled={!underReply} />
        <span className="hidden gap-3 text-sm text-soft sm:col-start-3 sm:row-start-1 sm:flex">
          {row.refused && <strong className="text-stop">refused</strong>}
          {row.people.length > 0 && <span className="font-semibold text-look">{row.people.join(", ")}</span>}
          {row.topic && <span className="hidden w-28 truncate md:inline">{row.topic}</span>}
          <span className="w-11">{row.channel === "sms" ? "SMS" : row.channel}</span>
        </span>
      </Link>
    </li>
  );
}

/** What the shelf has for a case, in one line: how well, which reply, and why. */
function BestLine({ best, titled }: { best: Best | undefined; titled: boolean }) {
  if (!best || (!titled && !best.reply)) return null;
  const words = best.reply && fitWords(best.reply.fit);
  return (
    <span className="col-[2/-1] -mt-2 truncate text-sm text-soft">
      {best.reply ? (
        <>
          <strong className={`font-semibold ${words === "close fit" ? "text-accent" : "text-ink"}`}>
            {words ?? "perhaps"}
          </strong>{" "}
          {titled && `${best.reply.title.toLowerCase()}, `}
          {best.reply.why}
        </>
      ) : (
        "nothing on the shelf fits"
      )}
    </span>
  );
}
