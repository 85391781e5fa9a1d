import { lazy, Suspense, useEffect, useRef, useState } from "react";
import { Form, Link, useNavigate, useSearchParams, useSubmit } from "react-router";
import { z } from "zod";
import { beginning, type Beginning } from "#server/cases/beginning";
import { MOST_ROWS, waitingCases, type WaitingRow } from "#server/cases/waiting";
import { replyChannels } from "#core/words/named";
import { closeness } from "#core/ranking/fit-words";
import { proposalNews } from "#server/replies/history";
import { bestReplies } from "#server/ranking/best";
import type { Best, BestReply } from "#server/ranking/kept";
import { log } from "#server/log";
import { signedIn } from "#server/web/context";
import { Checkbox } from "../ui/checkbox";
import { Kbd } from "../ui/kbd";
import { later } from "../ui/later";
import { sameWords, Select } from "../ui/select";
import { StaleLine, steadily } from "../ui/stale";
import { withParams } from "../ui/params";
import { useClock } from "../ui/time";
import { useFindKeys } from "../ui/use-find-keys";
import { useShortcut } from "../ui/use-shortcut";
import type { Route } from "./+types/route";
import { inAlike } from "./alike";
import { useChanges } from "./use-changes";
import { inBands } from "./bands";
import { CasePreview } from "./case-preview";
import { ProposalNews } from "./proposal-news";
import { RowMenu } from "../ui/row-menu";
import { Alike, Ruler, PlainRows } from "./rows";
import { loggable } from "#server/told";
import { t } from "../words/waiting";
import { Sentence } from "../words/sentence";

const query = z.object({
  list: z.enum(["us", "customer", "set aside", "settled"]).catch("us"),
  whose: z.enum(["mine", "my team", "nobody's", "all"]).catch("my team"),
  channel: z.enum(replyChannels).nullable().catch(null),
  topic: z.string().min(1).max(200).nullable().catch(null),
  text: z.string().max(200).catch(""),
  alike: z.literal("yes").nullable().catch(null),
  whole: z.literal("yes").nullable().catch(null),
});

export async function loader(args: Route.LoaderArgs) {
  const { viewer, em } = await signedIn(args);
  const filter = query.parse(Object.fromEntries(new URL(args.request.url).searchParams));
  const [listed, news] = await Promise.all([waitingCases(em, viewer, filter), proposalNews(em, viewer)]);
  // Follows when it is known: the list does not wait for it.
  const best =
    filter.list === "us" ? bestReplies(em.fork(), viewer, listed.rows).catch(unranked) : Promise.resolve({});
  const first = listed.rows.length === 0 ? await beginning(em, viewer) : null;
  return { filter, most: MOST_ROWS, ...listed, best, first, news };
}

const load = steadily<Awaited<ReturnType<typeof loader>>>();

/** A reload in the background that fails leaves the list, and an answer that is read beside it. */
export function clientLoader({ request, serverLoader }: Route.ClientLoaderArgs) {
  return load(new URL(request.url).search, () => serverLoader());
}
clientLoader.hydrate = true as const;

/** The list serves without its best replies; it says so. */
function unranked(error: unknown): null {
  const said = loggable(error);
  log.error({ event: "ranking the waiting cases failed", error: said });
  return null;
}

const WHOSE = () =>
  [
    ["my team", t("myTeams")],
    ["mine", t("mine")],
    ["nobody's", t("nobodys")],
    ["all", t("everyones")],
  ] as const;

/** What stays as it is while somebody types what to find. */
const KEPT = ["list", "whose", "topic", "channel", "alike"];

const listTab = (active: boolean) =>
  `border-b-2 pb-1 ${active ? "border-ink font-bold" : "border-transparent text-soft hover:text-ink"}`;

export default function Waiting({ loaderData }: Route.ComponentProps) {
  const { more, most, topics, filter } = loaderData;
  const rows = useChanges(loaderData.rows, filter);
  // Cases that came or went since: the count follows at once.
  const counts = counted(loaderData, rows.length);
  const [params] = useSearchParams();
  const { now, timeZone } = useClock();
  const navigate = useNavigate();
  const submit = useSubmit();
  const [chosen, setChosen] = useState<number | null>(null);
  // Kept as it was opened: what the list learns meanwhile does not take an answer away from who reads it.
  const [compact, setCompact] = useState<{ row: WaitingRow; reply: BestReply } | null>(null);
  const { best, failed } = useBest(loaderData.best);
  const groups = filter.list === "us" ? inBands(rows, now, timeZone) : null;
  const onRuler = groups ? groups.flatMap((group) => group.rows) : rows;
  const alike = groups && filter.alike ? inAlike(onRuler, best) : null;
  const order = alike ? alike.flatMap((group) => group.rows) : onRuler;
  const at = Math.max(
    0,
    order.findIndex((row) => row.number === chosen),
  );
  const selected = order[at];
  // While an answer is open, passing the mouse over other cases does not take it away.
  const select = (number: number) => {
    if (compact === null) setChosen(number);
  };
  const answerHere = (row: WaitingRow, reply: BestReply) => {
    setChosen(row.number);
    setCompact({ row, reply });
  };
  const go = (changes: Record<string, string | null>) =>
    void navigate(withParams("/waiting", params, changes), { replace: true });
  const listed = { selected: selected?.number ?? null, onSelect: select, whole: filter.whole !== null };
  const easy = selected ? easyReply(best[selected.number]) : null;

  // What answers from here must not fail for a server that is away.
  useEffect(
    () =>
      later(() => {
        fetchCompactAnswer().catch((error: unknown) => {
          console.warn("What answers from the list could not be fetched ahead", error);
        });
      }),
    [],
  );

  const move = (step: number) => () => {
    const next = order[at + step];
    if (!next) return;
    setChosen(next.number);
    setCompact(null);
    const row = document.getElementById(`case-${next.number}`);
    row?.focus({ preventScroll: true });
    row?.scrollIntoView({ block: "nearest" });
  };
  useShortcut("caseDown", move(1));
  useShortcut("caseUp", move(-1));
  const toRow = (row: WaitingRow | undefined) => {
    if (!row) return;
    setChosen(row.number);
    document.getElementById(`case-${row.number}`)?.focus();
  };
  const field = useRef<HTMLInputElement>(null);
  useFindKeys(field, {
    searched: filter.text,
    toList: () =>
      order.length === 0 ? field.current?.blur() : toRow(filter.text === "" ? selected : order[0]),
    open: () => order[0] && void navigate(`/cases/${order[0].number}`),
    clear: () => {
      if (field.current) field.current.value = "";
      go({ text: null });
    },
  });
  useShortcut("findCase", () => field.current?.focus());
  useShortcut("alike", () => go({ alike: filter.alike ? null : "yes" }), { enabled: filter.list === "us" });
  useShortcut("closeHere", () => setCompact(null), { also: true });
  useShortcut(
    "openCase",
    (event) => {
      if (!selected) return;
      const target = event.target instanceof HTMLElement ? event.target : null;
      const onRow = target?.id === `case-${selected.number}`;
      const idle = document.activeElement === document.body || target?.matches("[role=checkbox]") === true;
      // A row opens its case by itself.
      if ((!idle && !onRow) || (!easy && onRow)) return;
      event.preventDefault();
      if (easy) answerHere(selected, easy);
      else void navigate(`/cases/${selected.number}`);
    },
    { enabled: compact === null, also: true },
  );

  return (
    <div
      className={`grid grow gap-5 px-5 ${compact === null ? "lg:grid-cols-[1fr_22rem]" : "lg:grid-cols-[1fr_33rem]"}`}
    >
      <title>{t("waitingUsPlainShelf", { us: counts.us })}</title>
      <main className="min-w-0 bg-sheet">
        <h1 className="sr-only">{t("waiting")}</h1>
        <div className="flex flex-wrap items-end gap-x-6 gap-y-2 px-6 pt-4 pb-3">
          <nav aria-label={t("lists")} className="flex gap-6">
            <Link
              to={withParams("/waiting", params, { list: null })}
              aria-current={filter.list === "us" ? "page" : undefined}
              className={listTab(filter.list === "us")}
            >
              <Sentence
                of={t}
                name="waitingForUsUs"
                values={{ us: counts.us }}
                parts={[<span key="0" className="tabular-nums" />]}
              />
            </Link>
            <Link
              to={withParams("/waiting", params, { list: "customer" })}
              aria-current={filter.list === "customer" ? "page" : undefined}
              className={listTab(filter.list === "customer")}
            >
              <Sentence
                of={t}
                name="forTheCustomerCustomer"
                values={{ customer: counts.customer }}
                parts={[<span key="0" className="tabular-nums" />]}
              />
            </Link>
            {(filter.list === "set aside" || filter.list === "settled") && (
              <Link
                to={withParams("/waiting", params, { list: filter.list })}
                aria-current="page"
                className={listTab(true)}
              >
                {filter.list === "settled"
                  ? t("settled")
                  : t("setAsideCount", { count: counts["set aside"] })}
              </Link>
            )}
            <RowMenu
              label={t("moreLists")}
              actions={[
                {
                  words: t("setAsideCount", { count: counts["set aside"] }),
                  to: withParams("/waiting", params, { list: "set aside" }),
                },
                { words: t("settled"), to: withParams("/waiting", params, { list: "settled" }) },
              ]}
            />
            <Link to="/write" className={listTab(false)}>
              {t("writeAMail")}
            </Link>
          </nav>
          <Form
            className="ml-auto flex flex-wrap items-end gap-4 text-sm"
            onChange={(event) => void submit(event.currentTarget, { replace: true })}
          >
            {KEPT.map((name) => {
              const value = params.get(name);
              return value === null ? null : <input key={name} type="hidden" name={name} value={value} />;
            })}
            {filter.list === "us" && (
              <label className="flex items-center gap-1.5 pb-1">
                <Checkbox
                  checked={filter.alike !== null}
                  onChange={(on) => go({ alike: on ? "yes" : null })}
                />
                {t("alike")} <Kbd keys="A" />
              </label>
            )}
            <Select
              label={t("whose")}
              value={filter.whose}
              options={WHOSE()}
              onChange={(whose) => go({ whose })}
              className="lined-field max-w-36"
            />
            <Select
              label={t("topic")}
              value={filter.topic ?? ""}
              options={[["", t("anyTopic")], ...sameWords(topics)]}
              onChange={(topic) => go({ topic: topic || null })}
              className="lined-field max-w-36"
            />
            <span className="flex items-center gap-1.5">
              <input
                ref={field}
                type="search"
                name="text"
                aria-label={t("findACase")}
                placeholder={t("findACase")}
                defaultValue={filter.text}
                className="lined-field w-40"
              />
              <Kbd keys="/" />
            </span>
            <noscript>
              <button type="submit" className="quiet-link">
                {t("show")}
              </button>
            </noscript>
          </Form>
        </div>
        <ProposalNews news={loaderData.news} />
        <div id="list" tabIndex={-1} />
        {loaderData.first && order.length === 0 ? (
          <FirstCase {...loaderData.first} />
        ) : order.length === 0 ? (
          <Nothing
            filtered={
              filter.text !== "" ||
              filter.topic !== null ||
              filter.whose === "mine" ||
              filter.whose === "nobody's"
            }
            list={filter.list}
          />
        ) : alike ? (
          <Alike groups={alike} best={best} {...listed} />
        ) : groups ? (
          <Ruler groups={groups} best={best} {...listed} />
        ) : (
          <PlainRows rows={rows} {...listed} />
        )}
        {!filter.whole && (
          <noscript>
            <p className="px-6 py-3">
              <Link to={withParams("/waiting", params, { whole: "yes" })} className="quiet-link">
                {t("allOfTheseToTheLast")}
              </Link>
            </p>
          </noscript>
        )}
        <StaleLine stale={"stale" in loaderData ? loaderData.stale : null} />
        {failed && (
          <p role="status" className="px-6 py-3 text-sm text-look">
            {t("whatTheShelfHasForThese")}
          </p>
        )}
        {more && <p className="px-6 py-3 text-sm text-soft">{t("theFirstMostAreListedNarrow", { most })}</p>}
      </main>
      <aside aria-label={t("chosenCase")} className="hidden bg-sheet lg:block">
        {compact ? (
          <Suspense fallback={<p className="px-6 py-5 text-soft">{t("opening")}</p>}>
            <CompactAnswer
              key={compact.row.number}
              {...compact}
              onClose={(sent) => {
                setCompact(null);
                if (sent) setChosen(order[at + 1]?.number ?? null);
              }}
            />
          </Suspense>
        ) : (
          // Together, so that neither goes over the other when the list is scrolled.
          <div className="sticky top-0">
            {selected && (
              <CasePreview
                row={selected}
                best={best[selected.number]}
                onAnswer={easy ? () => answerHere(selected, easy) : null}
              />
            )}
            {filter.list === "us" && (
              <Suspense>
                <DayFigure rows={rows} />
              </Suspense>
            )}
          </div>
        )}
      </aside>
    </div>
  );
}

const fetchCompactAnswer = () => import("./compact-answer");
const CompactAnswer = lazy(fetchCompactAnswer);
const DayFigure = lazy(() => import("./day-figure"));

type Loaded = Awaited<ReturnType<typeof loader>>;

/** How many cases the lists have, with those that came to this one or left it since it was loaded. */
function counted({ counts, rows, filter }: Pick<Loaded, "counts" | "rows" | "filter">, now: number) {
  if (filter.list === "settled") return counts;
  return { ...counts, [filter.list]: counts[filter.list] + now - rows.length };
}

interface Known {
  best: Record<number, Best>;
  /** Whether they could not be found out. */
  failed: boolean;
}

/** The best replies, once they are known; what was known before serves until then. */
function useBest(promised: Promise<Record<number, Best> | null>): Known {
  const [known, setKnown] = useState<Known>({ best: {}, failed: false });
  useEffect(() => {
    let current = true;
    const settle = (best: Record<number, Best> | null) => {
      if (current) setKnown((before) => ({ best: best ?? before.best, failed: best === null }));
    };
    // What fails on the way here is a page that was left, or a connection that broke.
    promised.then(settle, () => settle(null));
    return () => {
      current = false;
    };
  }, [promised]);
  return known;
}

/** A case's best reply where it may be sent as it is: a close fit that asks for nothing. */
function easyReply(best: Best | undefined): BestReply | null {
  const reply = best?.reply ?? null;
  return reply?.ready === true && closeness(reply.fit) === "close" ? reply : null;
}

/** Before the first case: where it will come from. */
function FirstCase({ address, simulated, isLead }: Beginning) {
  return (
    <div className="px-6 py-14 text-center">
      <p className="font-serif text-lg">{t("noCaseHasComeYet")}</p>
      <p className="mt-2 text-soft">
        <Sentence
          of={t}
          name="mailToAddressBecomesTheFirst"
          values={{ address }}
          parts={[<strong key="0" className="font-semibold text-ink" />]}
        />
      </p>
      <p className="mt-4 flex flex-wrap justify-center gap-x-7 gap-y-2">
        {simulated && (
          <Link to="/outside" className="quiet-link">
            {t("writeOneAsACustomer")}
          </Link>
        )}
        {isLead && (
          <Link to="/setup/start" className="quiet-link">
            {t("firstStepsOfTheHouse")}
          </Link>
        )}
        <Link to="/shelves" className="quiet-link">
          {t("seeTheShelves")}
        </Link>
      </p>
    </div>
  );
}

function Nothing({ filtered, list }: { filtered: boolean; list: Loaded["filter"]["list"] }) {
  return (
    <div className="px-6 py-14 text-center">
      <p className="font-serif text-lg">
        {filtered
          ? t("noCaseIsLikeThat")
          : list === "us"
            ? t("nobodyIsWaitingForUs")
            : list === "customer"
              ? t("weAreWaitingForNobody")
              : list === "settled"
                ? t("nothingIsSettled")
                : t("nothingIsSetAside")}
      </p>
      {filtered && (
        <p className="mt-3">
          <Link to="/waiting?whose=all" className="quiet-link">
            {t("showEveryonesCases")}
          </Link>
        </p>
      )}
    </div>
  );
}
