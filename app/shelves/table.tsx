import { ArrowDown, ArrowUp, Pin } from "lucide-react";
import type { KeyboardEvent } from "react";
import { Link, useNavigate, useSearchParams } from "react-router";
import * as z from "zod/mini";
import type { ReplyColumn, ReplyFilter } from "#server/replies/filter";
import type { ReplyRow } from "#server/replies/list";
import { Mark } from "../ui/mark";
import { useAct } from "../ui/act";
import { relativeTime, useClock } from "../ui/time";
import { useToast } from "../ui/toast";
import { columnLabels, sortable } from "./column-labels";
import { withParams } from "./params";
import { isSelected, toggled, type Selection } from "./selection";
import { Checkbox } from "../ui/checkbox";
import { Hint } from "../ui/hint";

interface Props {
  found: { rows: ReplyRow[]; total: number; alike: boolean };
  filter: ReplyFilter;
  columns: ReplyColumn[];
  selection: Selection;
  onSelect: (selection: Selection) => void;
}

const nothing = z.object({});

/** The replies found, a row each; arrows move, Space selects, Enter opens. */
export function ReplyTable({ found, filter, columns, selection, onSelect }: Props) {
  const { rows, total, alike } = found;
  const [params] = useSearchParams();
  const navigate = useNavigate();
  const act = useAct();
  const toast = useToast();
  const page = rows.map((row) => row.key);
  const chosen = page.filter((key) => isSelected(selection, key)).length;

  const onKeyDown = (event: KeyboardEvent<HTMLTableRowElement>, row: ReplyRow) => {
    if (event.target !== event.currentTarget || event.altKey || event.ctrlKey || event.metaKey) return;
    const step =
      event.key === "ArrowDown"
        ? "nextElementSibling"
        : event.key === "ArrowUp"
          ? "previousElementSibling"
          : null;
    if (step) {
      const next = event.currentTarget[step];
      if (next instanceof HTMLElement) next.focus();
    } else if (event.key === " ")
      onSelect(toggled(selection, [row.key], !isSelected(selection, row.key), page));
    else if (event.key === "Enter") void navigate(`/replies/${row.key}`);
    else return;
    event.preventDefault();
  };

  const pin = async (row: ReplyRow) => {
    const done = await act(`/replies/${row.key}/pin`, { pinned: !row.pinned }, nothing);
    if (!done.ok) toast({ words: done.problem, tone: "stop" });
  };

  if (rows.length === 0)
    return <Nothing searched={filter.q !== ""} filtered={params.size > 0} words={filter.q} />;
  return (
    <div className="min-h-0 grow overflow-auto">
      <p role="status" className="px-6 pb-1 text-sm text-soft">
        {`${total.toLocaleString("en-GB")} ${total === 1 ? "reply" : "replies"}`}
        {alike && ". Nothing has these words; these are spelled alike"}
      </p>
      <table className="w-full border-collapse text-left">
        <thead className="sticky top-0 z-10 bg-sheet text-sm">
          <tr className="border-b border-ink">
            <th scope="col" className="w-8 py-1.5 pr-3 pl-6">
              <Checkbox
                label="Select this page"
                checked={chosen === page.length ? true : chosen > 0 ? "mixed" : false}
                onChange={(on) => onSelect(toggled(selection, page, on, page))}
              />
            </th>
            <Heading column="title" label="Reply" filter={filter} params={params} sorts />
            {columns.map((column) => (
              <Heading
                key={column}
                column={column}
                label={columnLabels[column]}
                filter={filter}
                params={params}
                sorts={sortable.has(column)}
              />
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.map((row) => (
            <tr
              key={row.key}
              tabIndex={0}
              aria-label={row.title}
              aria-selected={isSelected(selection, row.key)}
              onKeyDown={(event) => onKeyDown(event, row)}
              className="group border-b border-line align-top aria-selected:bg-wash"
            >
              <td className="py-2 pr-3 pl-6">
                <Checkbox
                  tabIndex={-1}
                  label={`Select ${row.title}`}
                  checked={isSelected(selection, row.key)}
                  onChange={(on) => onSelect(toggled(selection, [row.key], on, page))}
                />
              </td>
              <td className="max-w-md min-w-64 py-2 pr-5">
                <span className="flex items-baseline gap-2">
                  <Link to={`/replies/${row.key}`} tabIndex={-1} className="font-semibold hover:underline">
                    {row.titleFound ? <Found pieces={row.titleFound} /> : row.title}
                  </Link>
                  <Hint words={row.pinned ? "Within reach; take it out" : "Keep it within reach"}>
                    <button
                      type="button"
                      aria-pressed={row.pinned}
                      aria-label={
                        row.pinned ? `Take ${row.title} out of reach` : `Keep ${row.title} within reach`
                      }
                      className={`-my-1 shrink-0 self-center p-1 ${row.pinned ? "text-accent" : "text-soft opacity-0 group-hover:opacity-100 group-focus-within:opacity-100 focus:opacity-100"}`}
                      onClick={() => void pin(row)}
                    >
                      <Pin size={16} aria-hidden="true" {...(row.pinned ? { fill: "currentColor" } : {})} />
                    </button>
                  </Hint>
                </span>
                <Notes row={row} />
                {row.snippet && (
                  <p className="font-serif text-sm text-soft">
                    … <Found pieces={row.snippet} /> …
                  </p>
                )}
              </td>
              {columns.map((column) => (
                <td key={column} className="py-2 pr-5 text-sm">
                  <Cell row={row} column={column} searched={filter.q} />
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

function Heading({
  column,
  label,
  filter,
  params,
  sorts,
}: {
  column: string;
  label: string;
  filter: ReplyFilter;
  params: URLSearchParams;
  sorts: boolean;
}) {
  const usual = filter.sort === null && filter.q === "" && column === "title";
  const active = filter.sort === column || usual;
  const next = active && !filter.down ? { sort: column, down: "true" } : { sort: column, down: null };
  const Way = filter.down ? ArrowDown : ArrowUp;
  return (
    <th
      scope="col"
      aria-sort={active ? (filter.down ? "descending" : "ascending") : undefined}
      className={`py-1.5 pr-5 whitespace-nowrap ${active ? "font-bold" : "font-normal text-soft"}`}
    >
      {sorts ? (
        <Link to={withParams(params, next)} className="flex items-center gap-1 hover:text-ink">
          {label}
          {active && <Way size={14} aria-hidden="true" className="shrink-0" />}
        </Link>
      ) : (
        label
      )}
    </th>
  );
}

/** What is not as usual about a reply, in words. */
function Notes({ row }: { row: ReplyRow }) {
  const { season } = row;
  const notes = [
    row.state === "shelved" ? null : row.state,
    row.waiting > 0 ? `${row.waiting} waiting to be checked` : null,
    season.out ? `out of season: offered ${seasonWords(season)}` : null,
    row.reviewDue ? `to be reviewed since ${row.reviewBy ?? ""}` : null,
  ].filter((note) => note !== null);
  return notes.length > 0 ? <p className="text-sm text-look">{notes.join("; ")}</p> : null;
}

function seasonWords({ from, until }: ReplyRow["season"]): string {
  return [from && `from ${from}`, until && `until ${until}`].filter(Boolean).join(" ");
}

/** A text with what was searched marked in it. */
function Found({ pieces }: { pieces: { text: string; found: boolean }[] }) {
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

function Cell({ row, column, searched }: { row: ReplyRow; column: ReplyColumn; searched: string }) {
  const { now, timeZone } = useClock();
  switch (column) {
    case "shelf":
      return (
        <span className="flex items-baseline gap-1.5 whitespace-nowrap">
          <Mark letters={row.shelf.mark} /> {row.shelf.name}
        </span>
      );
    case "part":
      return row.part;
    case "state":
      return <span className="whitespace-nowrap">{row.state}</span>;
    case "tags":
      return <Tags tags={row.tags} searched={searched} />;
    case "channels":
      return row.channels.join(", ");
    case "languages":
      return row.languages.join(", ");
    case "about":
      return [...row.topics, ...(row.withBooking ? ["with a booking"] : [])].join(", ") || "any case";
    case "owner":
      return row.owner ?? "";
    case "uses":
      return <span className="tabular-nums">{row.uses === 0 ? "" : row.uses}</span>;
    case "used":
      return row.lastUsed ? relativeTime(Date.parse(row.lastUsed), now, timeZone) : "never";
    case "review":
      return <span className="tabular-nums">{row.reviewBy ?? ""}</span>;
    case "changed":
      return (
        <span className="whitespace-nowrap">{relativeTime(Date.parse(row.changed), now, timeZone)}</span>
      );
  }
}

function Nothing({ searched, filtered, words }: { searched: boolean; filtered: boolean; words: string }) {
  return (
    <div className="grow px-6 py-16 text-center">
      <p className="font-serif text-lg">{filtered ? "No reply is like that." : "The shelves are empty."}</p>
      <p className="mt-3 flex justify-center gap-6">
        {filtered && (
          <Link to="/shelves" className="quiet-link">
            Show all
          </Link>
        )}
        <Link
          to={searched ? `/replies/new?title=${encodeURIComponent(words)}` : "/replies/new"}
          className="quiet-link"
        >
          {searched ? `Write one about “${words}”` : "Write the first"}
        </Link>
      </p>
    </div>
  );
}
