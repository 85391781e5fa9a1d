import { useState } from "react";
import { Link, useSearchParams } from "react-router";
import type { LateChange } from "#server/replies/lately";
import type { NamedReply } from "#server/replies/pins";
import type { ShelfRow } from "#server/replies/shelves";
import { Hint } from "../ui/hint";
import { Mark } from "../ui/mark";
import { Time } from "../ui/time";
import { useAct } from "../ui/act";
import { SortableList } from "../ui/sortable-list";
import { withParams } from "./params";
import { t } from "../words/shelves";

interface Props {
  shelves: ShelfRow[];
  current: string;
  reach: NamedReply[];
  recentlyUsed: NamedReply[];
  proposals: number;
  mayArrange: boolean;
  lately: LateChange[];
  onUndo: (id: number) => void;
}

/** Beside the list: what is within reach, what was used lately, and the shelves. */
export function Side({
  shelves,
  current,
  reach,
  recentlyUsed,
  proposals,
  mayArrange,
  lately,
  onUndo,
}: Props) {
  const [params] = useSearchParams();
  return (
    <aside
      aria-label={t("shelves")}
      className="flex flex-col gap-6 overflow-y-auto py-4 text-sm max-md:order-2"
    >
      <WithinReach reach={reach} />
      {recentlyUsed.length > 0 && (
        <section>
          <h2 className="font-bold">{t("latelyUsed")}</h2>
          <ul className="mt-1.5 flex flex-col gap-0.5">
            {recentlyUsed.slice(0, 5).map((reply) => (
              <li key={reply.key}>
                <ReplyLink reply={reply} />
              </li>
            ))}
          </ul>
        </section>
      )}
      <nav aria-label={t("shelves")}>
        <div className="flex items-baseline justify-between">
          <h2 className="font-bold">{t("shelves")}</h2>
          {mayArrange && (
            <Link to="/shelves/arrange" className="quiet-link">
              {t("arrange")}
            </Link>
          )}
        </div>
        <ul className="mt-1.5 flex flex-col">
          <li>
            <ShelfLink
              to={withParams(params, { shelf: null })}
              active={current === ""}
              mark="∗"
              name={t("allShelves")}
            />
          </li>
          {shelves.map((shelf) => (
            <li key={shelf.key}>
              <ShelfLink
                to={withParams(params, { shelf: shelf.key })}
                active={current === shelf.key}
                mark={shelf.mark}
                name={shelf.name}
                count={shelf.replies}
              />
            </li>
          ))}
        </ul>
      </nav>
      <Link to="/shelves/proposals" className="self-start quiet-link">
        {proposals > 0 ? t("proposalsWaitingToBeChecked", { proposals }) : t("proposals")}
      </Link>
      {lately.length > 0 && (
        <section aria-labelledby="lately-changed">
          <h2 id="lately-changed" className="font-bold">
            {t("latelyChangedByYou")}
          </h2>
          <ul className="mt-1.5 flex flex-col gap-1.5">
            {lately.map(({ id, words, at, undone }) => (
              <li key={id} className={undone ? "text-soft line-through" : ""}>
                {words}, <Time at={at} />{" "}
                {!undone && (
                  <button
                    type="button"
                    className="quiet-link"
                    aria-label={t("undoWords", { words })}
                    onClick={() => onUndo(id)}
                  >
                    {t("undo")}
                  </button>
                )}
              </li>
            ))}
          </ul>
        </section>
      )}
    </aside>
  );
}

function ShelfLink({
  to,
  active,
  mark,
  name,
  count,
}: {
  to: string;
  active: boolean;
  mark: string;
  name: string;
  count?: number;
}) {
  return (
    <Hint words={name}>
      <Link
        to={to}
        aria-current={active ? "page" : undefined}
        className={`flex items-center gap-2.5 border-l-[3px] py-1 pl-2 ${active ? "border-ink font-bold" : "border-transparent text-soft hover:text-ink"}`}
      >
        <Mark letters={mark} />
        <span className="min-w-0 grow truncate">{name}</span>
        {count !== undefined && <span className="tabular-nums">{count}</span>}
      </Link>
    </Hint>
  );
}

function ReplyLink({ reply }: { reply: NamedReply }) {
  return (
    <Hint words={`${reply.title}, ${reply.shelf}`}>
      <Link
        to={`/replies/${reply.key}`}
        className="flex min-h-[24px] min-w-0 grow items-center gap-2 hover:underline"
      >
        <Mark letters={reply.mark} />
        <span className="min-w-0 truncate">{reply.title}</span>
      </Link>
    </Hint>
  );
}

/** Pinned replies in the person's own order, which they change by their handles. */
function WithinReach({ reach }: { reach: NamedReply[] }) {
  const act = useAct();
  const [problem, setProblem] = useState<string | null>(null);
  const put = async (keys: string[]) => {
    const done = await act("/shelves/pins/order", { keys });
    setProblem(done.ok ? null : done.problem);
  };
  const byKey = new Map(reach.map((reply) => [reply.key, reply]));
  return (
    <section>
      <h2 className="font-bold">{t("withinReach")}</h2>
      {reach.length === 0 ? (
        <p className="mt-1 text-soft">{t("keepRepliesHereWithThePin")}</p>
      ) : (
        <SortableList
          label={t("withinReach")}
          keys={reach.map((reply) => reply.key)}
          nameOf={(key) => byKey.get(key)?.title ?? key}
          onOrder={put}
          fixed={reach.length < 2}
          className="mt-1.5 flex flex-col gap-0.5"
          itemClassName="flex items-center gap-1"
        >
          {(key, handle) => {
            const reply = byKey.get(key);
            return (
              reply && (
                <>
                  <ReplyLink reply={reply} />
                  {handle}
                </>
              )
            );
          }}
        </SortableList>
      )}
      {problem && (
        <p role="alert" className="mt-1 text-stop">
          {problem}
        </p>
      )}
    </section>
  );
}
