import { useMemo, useState } from "react";
import { Link, useSearchParams } from "react-router";
import { readFilter } from "#server/replies/filter";
import { latelyChanged } from "#server/replies/lately";
import { knownWords, listReplies, PAGE_SIZE } from "#server/replies/list";
import { chosenColumns } from "#server/replies/columns";
import { besideList } from "#server/replies/pins";
import { listShelves } from "#server/replies/shelves";
import { signedIn } from "#server/web/context";
import { useLastUndo } from "../ui/toast";
import { useLive } from "../ui/use-live";
import type { Route } from "./+types/route";
import { BulkBar } from "./bulk-bar";
import { Filters } from "./filters";
import { Pages } from "./pages";
import { emptySelection, type Selection } from "./selection";
import { Side } from "./side";
import { ReplyTable } from "./table";
import { useBulk } from "./use-bulk";
import { listed } from "#core/text/counted";
import { t } from "../words/shelves";

export async function loader(args: Route.LoaderArgs) {
  const { viewer, em } = await signedIn(args);
  const filter = readFilter(new URL(args.request.url).searchParams);
  const [found, known, shelves, beside, columns, lately] = await Promise.all([
    listReplies(em, viewer, filter),
    knownWords(em, viewer),
    listShelves(em, viewer),
    besideList(em, viewer),
    chosenColumns(em, viewer),
    latelyChanged(em, viewer),
  ]);
  return {
    filter,
    found,
    known,
    shelves,
    ...beside,
    columns,
    lately,
    pageSize: PAGE_SIZE,
    role: viewer.role,
  };
}

/** Browse, search, filter and tidy the replies of all shelves that one may see. */
export default function Shelves({ loaderData }: Route.ComponentProps) {
  const { filter, found, known, shelves, owners, reach, recentlyUsed, columns, proposals, pageSize, role } =
    loaderData;
  const { lately } = loaderData;
  const { undo } = useBulk();
  const last = lately.find((one) => !one.undone)?.id;
  useLastUndo(useMemo(() => (last === undefined ? null : () => undo(last)), [last, undo]));
  const [params] = useSearchParams();
  const [selected, setSelection] = useState<Selection>(emptySelection);
  useLive("shelves");

  // What was selected as “all found” means another set once the filter changes.
  const narrowed = without(params, "page", "sort", "down");
  const selection = selected.all && selected.filter !== narrowed ? emptySelection : selected;

  const shelf = shelves.find((one) => one.key === filter.shelf);
  return (
    <div className="grid grow grid-cols-[minmax(0,1fr)] gap-x-5 px-5 pb-5 max-md:shrink-0 max-sm:px-3 md:min-h-0 md:grid-cols-[14.5rem_minmax(0,1fr)] md:grid-rows-[minmax(0,1fr)]">
      <title>{t("shelvesPlainShelf")}</title>
      <Side
        shelves={shelves}
        current={filter.shelf}
        reach={reach}
        recentlyUsed={recentlyUsed}
        proposals={proposals}
        lately={lately}
        onUndo={undo}
        mayArrange={role !== "agent"}
      />
      <main className="flex min-h-0 min-w-0 flex-col bg-sheet max-md:h-[85dvh]">
        <div className="flex flex-wrap items-baseline gap-x-6 gap-y-2 px-6 pt-4">
          <h1 className="text-lg font-bold">{shelf ? shelf.name : t("allShelves")}</h1>
          {shelf && <span className="text-sm text-soft">{audienceWords(shelf)}</span>}
          <Link
            to={`/replies/new${filter.shelf ? `?shelf=${encodeURIComponent(filter.shelf)}` : ""}`}
            className="ml-auto rounded-sm bg-accent px-3.5 py-1.5 font-semibold text-on-accent"
          >
            {t("writeAReply")}
          </Link>
        </div>
        <Filters
          filter={filter}
          known={known}
          owners={owners}
          columns={columns}
          first={found.rows[0]?.key ?? null}
        />
        <ReplyTable
          found={found}
          filter={filter}
          address={without(params, "page")}
          pageSize={pageSize}
          columns={columns}
          selection={selection}
          onSelect={setSelection}
        />
        <noscript>
          <Pages total={found.total} page={filter.page} size={pageSize} params={params} />
        </noscript>
        <BulkBar
          selection={selection}
          onSelect={setSelection}
          total={found.total}
          shown={found.rows.length}
          filter={narrowed}
          shelves={shelves}
          owners={owners}
          tags={known.tags}
        />
      </main>
    </div>
  );
}

/** An address’s parameters but some, as an address has them. */
function without(params: URLSearchParams, ...names: string[]): string {
  return new URLSearchParams([...params].filter(([name]) => !names.includes(name))).toString();
}

function audienceWords({ audience, teams }: { audience: string; teams: { name: string }[] }): string {
  if (audience === "everyone") return t("forEveryone");
  if (audience === "owner") return t("onlyYouSeeIt");
  return t("forTeams", { teams: listed(teams.map((team) => team.name)) });
}
