import { Link } from "react-router";
import type { WaitingRow } from "#server/cases/waiting";
import { channelName } from "#core/words/named";
import { ExactTime, Time, timeLeft, useClock } from "../ui/time";
import { closeness, fitWords } from "#core/ranking/fit-words";
import type { Best } from "#server/ranking/kept";
import { Mark } from "../ui/mark";
import type { AlikeGroup } from "./alike";
import { bandOf, type Band } from "./bands";
import { Hint } from "../ui/hint";
import { useInSight } from "./use-in-sight";
import { t } from "../words/waiting";
import { Sentence } from "../words/sentence";

interface Group {
  name: string;
  rows: WaitingRow[];
}

interface Listed {
  best: Record<number, Best>;
  selected: number | null;
  onSelect: (number: number) => void;
  /** Draws every row, in sight or not: for who has no script. */
  whole: boolean;
}

const bar: Record<Band, string> = {
  pastDue: "bg-stop",
  withinTheHour: "bg-look",
  today: "bg-accent",
  later: "bg-line",
};

/** Cases along the time that is left for them. */
export function Ruler({ groups, ...listed }: { groups: { band: Band; rows: WaitingRow[] }[] } & Listed) {
  return (
    <Stretches
      groups={groups.map(({ band, rows }) => ({ name: t(band), band, rows }))}
      {...listed}
      section={({ band, rows }, list) => (
        <section key={band} aria-label={t(band)} className="flex">
          <h2 className="sticky top-0 w-18 shrink-0 self-start pt-2.5 pl-3 text-sm sm:w-28 sm:pl-6 sm:text-base leading-tight font-bold">
            {t(band)}
            <span className="block font-normal text-soft tabular-nums">{rows.length}</span>
          </h2>
          <div className={`w-1.5 shrink-0 ${bar[band]}`} />
          <div className="min-w-0 grow">{list((row) => ({ when: <Due row={row} band={band} /> }))}</div>
        </section>
      )}
    />
  );
}

/** Cases under the reply that fits them best, to answer one after the other. */
export function Alike({ groups, ...listed }: { groups: AlikeGroup[] } & Listed) {
  const { now, timeZone } = useClock();
  return (
    <Stretches
      groups={groups.map((group) => ({ ...group, name: group.reply?.title ?? t("noSureReply") }))}
      {...listed}
      section={({ reply, name, rows }, list) => (
        <section key={reply?.key ?? ""} aria-label={name}>
          <h2 className="flex items-center gap-3 border-t border-line px-6 pt-4 pb-2 font-bold">
            {reply && <Mark letters={reply.mark} />}
            <span className="truncate">{name}</span>
            <span className="font-normal text-soft tabular-nums">{rows.length}</span>
          </h2>
          <div className="pl-6">
            {list((row) => ({
              when: <Due row={row} band={bandOf(row.answerBy, now, timeZone)} />,
              underReply: reply !== null,
            }))}
          </div>
        </section>
      )}
    />
  );
}

/** Cases by what happened last. */
export function PlainRows({ rows, ...listed }: { rows: WaitingRow[] } & Omit<Listed, "best">) {
  return (
    <Stretches
      groups={[{ name: "", rows }]}
      {...listed}
      best={null}
      section={(_group, list) => (
        <div key="" className="pl-6">
          {list((row) => ({ when: <Time at={row.updatedAt} className="text-soft" /> }))}
        </div>
      )}
    />
  );
}

interface RowDetails {
  when: React.ReactNode;
  /** Whether it stands under its best reply, which need not be told again. */
  underReply?: boolean;
}

/** The groups of a list, however long: of their rows only those in sight are drawn. */
function Stretches<G extends Group>({
  groups,
  best,
  selected,
  onSelect,
  whole,
  section,
}: {
  groups: G[];
  section: (group: G, list: (tell: (row: WaitingRow) => RowDetails) => React.ReactNode) => React.ReactNode;
  /** Null on a list that tells of none. */
  best: Record<number, Best> | null;
} & Omit<Listed, "best">) {
  const order = groups.flatMap((group) => group.rows);
  const chosen = order.findIndex((row) => row.number === selected);
  const { list, items, topOf, measure } = useInSight(order.length, chosen, whole);
  const begins = groups.map((_, at) =>
    groups.slice(0, at).reduce((sum, group) => sum + group.rows.length, 0),
  );
  return (
    <div ref={list}>
      {groups.map((group, at) => {
        const from = begins[at] ?? 0;
        const to = from + group.rows.length;
        return section(group, (tell) => (
          <ul className="relative" style={whole ? {} : { height: topOf(to) - topOf(from) }}>
            {items
              .filter(({ index }) => index >= from && index < to)
              .map(({ index, top }) => {
                const row = group.rows[index - from];
                return (
                  row && (
                    <li
                      key={row.number}
                      ref={measure}
                      data-index={index}
                      aria-setsize={group.rows.length}
                      aria-posinset={index - from + 1}
                      className={`border-t border-line ${row.number === selected ? "bg-wash" : ""} ${whole ? "" : "absolute inset-x-0"}`}
                      style={whole ? {} : { top: top - topOf(from) }}
                    >
                      <Row
                        row={row}
                        best={best && (best[row.number] ?? "not known")}
                        onSelect={onSelect}
                        {...tell(row)}
                      />
                    </li>
                  )
                );
              })}
          </ul>
        ));
      })}
    </div>
  );
}

function Due({ row, band }: { row: WaitingRow; band: Band }) {
  const { now, timeZone } = useClock();
  if (row.answerBy === null) return <span className="text-soft">{t("noTimeSet")}</span>;
  const due = Date.parse(row.answerBy);
  return (
    <Hint words={<Sentence of={t} name="answerBy" parts={[<ExactTime key="0" at={due} />]} />}>
      <time dateTime={row.answerBy} className={band === "pastDue" ? "font-bold text-stop" : ""}>
        {timeLeft(due, now, timeZone)}
      </time>
    </Hint>
  );
}

function Row({
  row,
  when,
  best,
  onSelect,
  underReply = false,
}: {
  row: WaitingRow;
  best: Best | "not known" | null;
  onSelect: (number: number) => void;
} & RowDetails) {
  const name = row.organisation ?? row.customer;
  return (
    <Link
      id={`case-${row.number}`}
      to={`/cases/${row.number}`}
      onFocus={() => onSelect(row.number)}
      onMouseEnter={() => onSelect(row.number)}
      className="grid grid-cols-[5.3rem_1fr] sm:grid-cols-[6.5rem_1fr_auto] items-baseline gap-x-3 gap-y-2 px-2.5 py-2 sm:px-3.5 focus-visible:outline-offset-[-2px]"
    >
      <span className="truncate text-sm tabular-nums">{when}</span>
      <span className="truncate">
        <strong className="mr-0.5">{name}</strong>{" "}
        <span className="font-serif text-letter">
          {row.subject && `${row.subject} `}
          <span className={row.subject ? "text-soft" : ""}>{row.words.slice(0, 160)}</span>
        </span>
      </span>
      {best && <BestLine best={best} titled={!underReply} />}
      <span className="hidden gap-3 text-sm text-soft sm:col-start-3 sm:row-start-1 sm:flex">
        {row.status === "waiting on a colleague" && (
          <span className="font-semibold text-look">{t("onAColleague")}</span>
        )}
        {row.refused && <strong className="text-stop">{t("refused")}</strong>}
        {row.people.length > 0 && <span className="font-semibold text-look">{row.people.join(", ")}</span>}
        {row.topic && <span className="hidden w-28 truncate md:inline">{row.topic}</span>}
        <span className="w-11">{channelName(row.channel)}</span>
      </span>
    </Link>
  );
}

/** What the shelf has for a case, in one line: how well, which reply, and why. Its room is there before it is known. */
function BestLine({ best, titled }: { best: Best | "not known"; titled: boolean }) {
  const line = "col-[2/-1] -mt-2 truncate text-sm text-soft";
  if (best === "not known") return <span className={line}>&nbsp;</span>;
  const words = best.reply && fitWords(best.reply.fit);
  return (
    <span className={line}>
      {best.reply ? (
        <>
          <strong
            className={`font-semibold ${closeness(best.reply.fit) === "close" ? "text-accent" : "text-ink"}`}
          >
            {words ?? t("perhaps")}
          </strong>{" "}
          {titled && `${best.reply.title.toLowerCase()}, `}
          {best.reply.why}
        </>
      ) : (
        t("nothingOnTheShelfFits")
      )}
    </span>
  );
}
