import {
  columnOrderingFeature,
  columnVisibilityFeature,
  createColumnHelper,
  rowSelectionFeature,
  tableFeatures,
  useTable,
} from "@tanstack/react-table";
import { useVirtualizer } from "@tanstack/react-virtual";
import { ArrowDown, ArrowUp, Pin } from "lucide-react";
import { useEffect, useMemo, useRef } from "react";
import { Link, useLocation, useNavigate, useSearchParams } from "react-router";
import type { ReplyColumn, ReplyFilter } from "#server/replies/filter";
import type { ReplyRow } from "#server/replies/list";
import { useAct } from "../ui/act";
import { Checkbox } from "../ui/checkbox";
import { Hint } from "../ui/hint";
import { RowMenu } from "../ui/row-menu";
import { useToast } from "../ui/toast";
import { useShortcut } from "../ui/use-shortcut";
import { Cell, Found, Notes } from "./cells";
import { columnLabels, sortable } from "./column-labels";
import { withParams } from "./params";
import { isSelected, toggled, type Selection } from "./selection";
import { useRows } from "./use-rows";
import { t } from "../words/shelves";
import { Sentence } from "../words/sentence";

interface Props {
  found: { rows: ReplyRow[]; total: number; alike: boolean };
  filter: ReplyFilter;
  /** The filter as an address has it. */
  address: string;
  pageSize: number;
  columns: ReplyColumn[];
  selection: Selection;
  onSelect: (selection: Selection) => void;
}

const features = tableFeatures({ columnOrderingFeature, columnVisibilityFeature, rowSelectionFeature });
const allColumns = Object.keys(columnLabels()) as ReplyColumn[];
const helper = createColumnHelper<typeof features, ReplyRow>();

/** Widths of columns: the list does not move sideways while it is gone along. */
const WIDTHS: Record<ReplyColumn, string> = {
  shelf: "11.5rem",
  part: "5.5rem",
  state: "7.5rem",
  tags: "11rem",
  channels: "8.5rem",
  languages: "6rem",
  about: "10rem",
  owner: "9rem",
  uses: "7.5rem",
  used: "7.5rem",
  review: "7rem",
  changed: "6.5rem",
};
const ROW_PX = 35;

/** Where the list stood when it was left, by the entry of the history. */
const left = new Map<string, number>();

/** The replies found, a row each, however many: arrows move, Space selects, Enter opens. */
export function ReplyTable({ found, filter, address, pageSize, columns, selection, onSelect }: Props) {
  const { rows, total, alike } = found;
  const [params] = useSearchParams();
  const { key } = useLocation();
  const navigate = useNavigate();
  const act = useAct();
  const toast = useToast();
  const scroll = useRef<HTMLDivElement>(null);
  const { rowAt, see, problem, again } = useRows(found, filter.page, pageSize, address);
  const virtual = useVirtualizer({
    count: total,
    getScrollElement: () => scroll.current,
    estimateSize: () => ROW_PX,
    overscan: 12,
    initialRect: { width: 1000, height: 700 },
    initialOffset: () => left.get(key) ?? (filter.page - 1) * pageSize * ROW_PX,
  });
  const items = virtual.getVirtualItems();
  const [from, to] = [items[0]?.index ?? 0, items.at(-1)?.index ?? 0];
  useEffect(() => see(from, to), [see, from, to, found]);
  useEffect(
    () => () => {
      left.set(key, virtual.scrollOffset ?? 0);
    },
    [key, virtual],
  );

  const shown = items.flatMap(({ index }) => rowAt(index) ?? []);
  const page = rows.map((row) => row.key);
  const chosen = page.filter((one) => isSelected(selection, one)).length;
  const table = useTable({
    features,
    columns: useMemo(() => columnsFor(filter.q), [filter.q]),
    data: shown,
    getRowId: (row) => row.key,
    state: {
      columnOrder: ["title", ...columns],
      columnVisibility: Object.fromEntries(allColumns.map((column) => [column, columns.includes(column)])),
      rowSelection: Object.fromEntries(
        shown.flatMap((row) => (isSelected(selection, row.key) ? [[row.key, true]] : [])),
      ),
    },
  });
  const select = (row: ReplyRow, on: boolean) =>
    onSelect(toggled(selection, [row.key], on, selection.all ? shown.map((one) => one.key) : page));

  const rowOf = ({ target }: KeyboardEvent) =>
    target instanceof HTMLElement && target.matches("tr[data-index]") ? target : null;
  const go = (step: -1 | 1) => (event: KeyboardEvent) => {
    const row = rowOf(event) ?? (document.activeElement === document.body ? undefined : null);
    if (row === null) return;
    const at = row === undefined ? 0 : Number(row.dataset.index) + step;
    scroll.current?.querySelector<HTMLElement>(`tr[data-index="${at}"]`)?.focus();
    event.preventDefault();
  };
  useShortcut("rowDown", go(1), { also: true });
  useShortcut("rowUp", go(-1), { also: true });
  const onRow = (run: (row: ReplyRow) => void) => (event: KeyboardEvent) => {
    const row = rowAt(Number(rowOf(event)?.dataset.index ?? -1));
    if (!row) return;
    event.preventDefault();
    run(row);
  };
  useShortcut(
    "mark",
    onRow((row) => select(row, !isSelected(selection, row.key))),
    { also: true },
  );
  useShortcut(
    "openReply",
    onRow((row) => void navigate(`/replies/${row.key}`)),
    { also: true },
  );

  const pin = async (row: ReplyRow) => {
    const done = await act(`/replies/${row.key}/pin`, { pinned: !row.pinned });
    if (!done.ok) toast({ words: done.problem, tone: "stop" });
  };

  if (total === 0) return <Nothing searched={filter.q !== ""} filtered={params.size > 0} words={filter.q} />;
  const byKey = new Map(table.getRowModel().rows.map((row) => [row.id, row]));
  const span = columns.length + 2;
  return (
    <div ref={scroll} className="min-h-0 grow overflow-auto">
      <p role="status" className="px-6 pb-1 text-sm text-soft">
        {t(alike ? "countRepliesSpelledAlike" : "countReplies", { count: total })}
      </p>
      {problem && (
        <p role="alert" className="px-6 pb-1 text-sm text-stop">
          <Sentence
            of={t}
            name="aPartOfTheListCould"
            parts={[<button key="0" type="button" className="quiet-link" onClick={again} />]}
          />
        </p>
      )}
      <table aria-rowcount={total + 1} className="w-full table-fixed sm:min-w-max border-collapse text-left">
        <colgroup>
          <col style={{ width: "3.75rem" }} />
          <col className="sm:min-w-72" />
          {columns.map((column) => (
            <col key={column} className="max-sm:w-0!" style={{ width: WIDTHS[column] }} />
          ))}
        </colgroup>
        <thead className="sticky top-0 z-10 bg-sheet text-sm shadow-[0_1px_0_var(--ink)]">
          {table.getHeaderGroups().map((group) => (
            <tr key={group.id} aria-rowindex={1}>
              <th scope="col" className="py-1.5 pr-3 pl-6">
                <Checkbox
                  label={t("selectThisPage")}
                  checked={chosen === page.length ? true : chosen > 0 ? "mixed" : false}
                  onChange={(on) => onSelect(toggled(selection, page, on, page))}
                />
              </th>
              {group.headers.map((header) => (
                <Heading
                  key={header.id}
                  column={header.id}
                  label={header.id === "title" ? t("reply") : columnLabels()[header.id as ReplyColumn]}
                  filter={filter}
                  params={params}
                  sorts={header.id === "title" || sortable.has(header.id as ReplyColumn)}
                />
              ))}
            </tr>
          ))}
        </thead>
        <tbody id="list" tabIndex={-1}>
          <Gap height={items[0]?.start ?? 0} span={span} />
          {items.map(({ index }) => {
            const reply = rowAt(index);
            const row = reply && byKey.get(reply.key);
            if (!row)
              return (
                <tr
                  key={index}
                  aria-hidden="true"
                  className="border-b border-line"
                  style={{ height: ROW_PX }}
                >
                  <td colSpan={span} className="pl-6 text-soft">
                    …
                  </td>
                </tr>
              );
            return (
              <tr
                key={row.id}
                ref={virtual.measureElement}
                data-index={index}
                tabIndex={0}
                aria-label={reply.title}
                aria-rowindex={index + 2}
                aria-selected={row.getIsSelected()}
                className="group border-b border-line align-top aria-selected:bg-wash"
              >
                <td className="py-2 pr-3 pl-6">
                  <Checkbox
                    tabIndex={-1}
                    label={t("selectReply", { reply: reply.title })}
                    checked={row.getIsSelected()}
                    onChange={(on) => select(reply, on)}
                  />
                </td>
                {row.getVisibleCells().map((cell) => (
                  <td
                    key={cell.id}
                    className={cell.column.id === "title" ? "py-2 pr-5" : "py-2 pr-5 text-sm max-sm:hidden"}
                  >
                    {cell.column.id === "title" ? (
                      <Title row={reply} onPin={() => void pin(reply)} />
                    ) : (
                      <table.FlexRender cell={cell} />
                    )}
                  </td>
                ))}
              </tr>
            );
          })}
          <Gap height={virtual.getTotalSize() - (items.at(-1)?.end ?? 0)} span={span} />
        </tbody>
      </table>
    </div>
  );
}

function columnsFor(searched: string) {
  return helper.columns([
    helper.accessor("title", { id: "title" }),
    ...allColumns.map((column) =>
      helper.display({
        id: column,
        cell: ({ row }) => <Cell row={row.original} column={column} searched={searched} />,
      }),
    ),
  ]);
}

/** Room for the rows that are not in sight. */
function Gap({ height, span }: { height: number; span: number }) {
  return height <= 0 ? null : (
    <tr aria-hidden="true">
      <td colSpan={span} style={{ height, padding: 0 }} />
    </tr>
  );
}

function Title({ row, onPin }: { row: ReplyRow; onPin: () => void }) {
  return (
    <>
      <span className="flex items-baseline gap-2">
        <Link to={`/replies/${row.key}`} tabIndex={-1} className="font-semibold hover:underline">
          {row.titleFound ? <Found pieces={row.titleFound} /> : row.title}
        </Link>
        <Hint words={row.pinned ? t("withinReachRemoveItFromThere") : t("keepItWithinReach")}>
          <button
            type="button"
            aria-pressed={row.pinned}
            aria-label={
              row.pinned
                ? t("removeTitleFromWithinReach", { title: row.title })
                : t("keepTitleWithinReach", { title: row.title })
            }
            className={`-my-1 shrink-0 self-center p-1 ${row.pinned ? "text-accent" : "text-soft opacity-0 group-hover:opacity-100 group-focus-within:opacity-100 focus:opacity-100"}`}
            onClick={onPin}
          >
            <Pin size={16} aria-hidden="true" {...(row.pinned ? { fill: "currentColor" } : {})} />
          </button>
        </Hint>
        <RowMenu
          label={t("moreForTitle", { title: row.title })}
          className="-my-1 self-center opacity-0 group-focus-within:opacity-100 group-hover:opacity-100 focus:opacity-100 data-[state=open]:opacity-100"
          actions={[
            { words: t("lookThroughItsVersions"), to: `/replies/${row.key}/history` },
            { words: t("copyIt"), to: `/replies/new?from=${encodeURIComponent(row.key)}` },
            { words: row.pinned ? t("removeItFromWithinReach") : t("keepItWithinReach"), run: onPin },
          ]}
        />
      </span>
      <Notes row={row} />
      {row.snippet && (
        <p className="font-serif text-sm text-soft">
          … <Found pieces={row.snippet} /> …
        </p>
      )}
    </>
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
      className={`py-1.5 pr-5 whitespace-nowrap ${column === "title" ? "" : "max-sm:hidden"} ${active ? "font-bold" : "font-normal text-soft"}`}
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

function Nothing({ searched, filtered, words }: { searched: boolean; filtered: boolean; words: string }) {
  return (
    <div id="list" tabIndex={-1} className="grow px-6 py-16 text-center">
      <p className="font-serif text-lg">{filtered ? t("noReplyIsLikeThat") : t("theShelvesAreEmpty")}</p>
      {!filtered && <p className="mt-2 text-soft">{t("beginWithWhatYouAreAsked")}</p>}
      <p className="mt-3 flex justify-center gap-6">
        {filtered && (
          <Link to="/shelves" className="quiet-link">
            {t("showAll")}
          </Link>
        )}
        <Link
          to={searched ? `/replies/new?title=${encodeURIComponent(words)}` : "/replies/new"}
          className="quiet-link"
        >
          {searched ? t("writeOneAboutWords", { words }) : t("writeTheFirstReply")}
        </Link>
      </p>
    </div>
  );
}
