import { ChevronDown, ChevronUp } from "lucide-react";
import { memo, useCallback, useEffect, useId, useRef, useState, type ReactNode, type RefObject } from "react";
import type { StripReply } from "#server/strip/strip";
import { fitWords } from "#core/ranking/fit-words";
import { Kbd } from "../../ui/kbd";
import { useShortcut } from "../../ui/use-shortcut";
import { SideTag, type Side } from "../side";
import type { StripHandle } from "./use-strip";
import { t } from "../../words/answering";
import { Sentence } from "../../words/sentence";

interface Props {
  /** Whether an answer is under way already. */
  began: boolean;
  strip: StripHandle;
  search: RefObject<HTMLInputElement | null>;
  taken: ReadonlySet<string>;
  /** Whether the shelf is looked at, and the page shows how the chosen reply would read. */
  onLook: (looking: boolean, at?: number) => void;
  /** @param add whether it is to stand beside what stands, whatever it answers */
  onTake: (reply: StripReply, add: boolean) => void;
  onLeave: () => void;
  keysGoTo: Side | null;
  /** Puts the hand on the shelf. */
  onSide: () => void;
  /** What the keys do, where it is something else than in an answer. */
  hints?: ReactNode;
}

/** The shelf along the bottom: replies for this case, to look at with the arrows and to take with Enter. */
export const Strip = memo(function Strip({
  began,
  strip,
  search,
  taken,
  onLook,
  onTake,
  onLeave,
  keysGoTo,
  onSide,
  hints,
}: Props) {
  const id = useId();
  const { query, setQuery, replies, current, setCurrent, chosen, total, searching, problem } = strip;
  const { nothingFits, unranked, askForMore } = strip;
  const place = useRef<HTMLElement>(null);
  const board = useRef<HTMLDivElement>(null);
  /** On a narrow page it is a drawer, closed at first. */
  const [isOpen, setOpen] = useState(false);

  useEffect(() => {
    if (!began) search.current?.focus({ preventScroll: true });
  }, [began, search]);

  const go = useCallback(
    (next: number) => {
      const to = Math.max(0, Math.min(replies.length - 1, next));
      setCurrent(to);
      onLook(true, to);
      board.current?.children[to]?.scrollIntoView({ block: "nearest", inline: "nearest" });
    },
    [replies.length, setCurrent, onLook],
  );
  const look = useCallback(
    (at: number) => {
      // A finger needs no field: its keys would cover the page.
      if (!isOpen) search.current?.focus();
      go(at);
    },
    [search, go, isOpen],
  );
  const takeIt = useCallback(
    (reply: StripReply) => {
      onTake(reply, false);
      setOpen(false);
    },
    [onTake],
  );

  const inField = useRef<HTMLDivElement>(null);
  const keys = { within: inField };
  useShortcut("look", ({ key }) => go(current + (key === "ArrowRight" ? 1 : -1)), keys);
  useShortcut(
    "take",
    () => {
      if (chosen) takeIt(chosen);
      else if (nothingFits) onLeave();
    },
    keys,
  );
  useShortcut("add", () => chosen && onTake(chosen, true), keys);
  useShortcut("leaveShelf", () => (query === "" ? onLeave() : setQuery("")), keys);

  return (
    <section
      ref={place}
      aria-label={t("shelf")}
      data-side="shelf"
      className="shelf relative bg-desk px-5 max-md:sticky max-md:bottom-0 max-md:z-30 max-md:border-t max-md:border-line md:pt-6"
    >
      <div className="max-md:hidden">
        <SideTag side="shelf" keysGoTo={keysGoTo} onGo={onSide} />
      </div>
      <button
        type="button"
        aria-expanded={isOpen}
        aria-controls={`${id}-drawer`}
        className="flex w-full items-baseline justify-between py-2.5 text-left font-semibold md:hidden"
        onClick={() => setOpen((open) => !open)}
      >
        <span>
          <Sentence
            of={t}
            name="shelfValue"
            values={{
              value:
                chosen && !taken.has(chosen.key)
                  ? chosen.title.toLowerCase()
                  : t("countReplies", { count: total }),
            }}
            parts={[<span key="0" className="font-normal text-soft" />]}
          />
        </span>
        {isOpen ? <ChevronDown size={18} aria-hidden="true" /> : <ChevronUp size={18} aria-hidden="true" />}
      </button>
      <div
        id={`${id}-drawer`}
        className={`gap-5 md:flex ${isOpen ? "flex flex-col gap-2 pb-3" : "max-md:hidden"}`}
      >
        <div ref={inField} className="shrink-0 text-sm text-soft md:w-48">
          <input
            ref={search}
            role="combobox"
            aria-expanded="true"
            aria-controls={`${id}-list`}
            aria-activedescendant={chosen ? `${id}-${current}` : undefined}
            aria-label={t("findOnTheShelf")}
            placeholder={t("findOnTheShelf")}
            className="lined-field w-full text-base text-ink"
            value={query}
            onChange={(event) => {
              setQuery(event.target.value);
              onLook(true);
            }}
            onFocus={() => onLook(true)}
            onBlur={({ relatedTarget }) => {
              if (relatedTarget !== null && !place.current?.contains(relatedTarget)) onLook(false);
            }}
            autoComplete="off"
            spellCheck={false}
          />
          <p className="mt-2" role="status">
            {problem ??
              (query
                ? searching
                  ? t("looking")
                  : t("countRepliesFound", { count: replies.length })
                : nothingFits
                  ? total === 0
                    ? t("yourShelvesHoldNoReplyYet")
                    : t("nothingOnTheShelfSeemsTo")
                  : unranked
                    ? t("countRepliesByUseWhatFits", { count: total })
                    : t("countRepliesWhatFitsTheMessage", { count: total }))}
          </p>
          <p className="mt-1.5 flex flex-wrap gap-x-1.5 gap-y-1 max-md:hidden">
            {hints ?? (
              <Sentence
                of={t}
                name="lookTakeAdd"
                parts={[
                  <Kbd key="0" keys="← →" />,
                  <Kbd key="1" keys="Enter" />,
                  <Kbd key="2" keys="Shift Enter" />,
                ]}
              />
            )}
          </p>
        </div>
        <div
          id={`${id}-list`}
          ref={board}
          role="listbox"
          aria-label={t("replies")}
          onScroll={askForMore}
          className="shelf-board flex min-w-0 grow items-end gap-2.5 overflow-x-auto"
        >
          {replies.map((reply, index) => (
            <Card
              key={reply.key}
              id={`${id}-${index}`}
              reply={reply}
              chosen={index === current}
              taken={taken.has(reply.key)}
              at={index}
              onLook={look}
              onTake={takeIt}
            />
          ))}
          {replies.length === 0 && (
            <p className="self-center px-4 font-serif text-letter text-soft">
              {t("nothingOnTheShelfIsLike")}{" "}
              {!searching && (
                <button type="button" className="quiet-link font-sans text-base" onClick={onLeave}>
                  {t("writeOneAndKeepIt")}
                </button>
              )}
            </p>
          )}
        </div>
      </div>
    </section>
  );
});

interface CardProps {
  id: string;
  reply: StripReply;
  chosen: boolean;
  taken: boolean;
  /** Its place on the strip. */
  at: number;
  onLook: (at: number) => void;
  onTake: (reply: StripReply) => void;
}

const Card = memo(function Card({ id, reply, chosen, taken, at, onLook, onTake }: CardProps) {
  const words = reply.fit === null ? null : fitWords(reply.fit);
  return (
    // The keyboard reaches the cards through the search field, by aria-activedescendant.
    <button
      type="button"
      id={id}
      role="option"
      aria-selected={chosen}
      tabIndex={-1}
      className={`shelf-card ${chosen ? "chosen" : ""}`}
      onClick={() => onLook(at)}
      onDoubleClick={() => onTake(reply)}
      onMouseDown={(event) => event.preventDefault()}
    >
      <span className="line-clamp-2 shrink-0 leading-tight font-bold">{reply.title}</span>
      <span className="mt-1 flex shrink-0 items-baseline gap-2 text-xs text-soft">
        <span className="font-semibold text-ink">{reply.shelf.mark}</span>
        <span className="line-clamp-2">
          {taken ? (
            t("inYourAnswer")
          ) : (
            <>
              {words && <strong className="font-semibold text-ink">{words}</strong>}
              {words && reasonOf(reply) !== "" && ": "}
              {reasonOf(reply)}
            </>
          )}
        </span>
      </span>
      <span className="mt-1.5 line-clamp-3 font-serif text-[13px] leading-snug">{firstWords(reply)}</span>
    </button>
  );
});

/** Why a card stands where it stands, in words. */
function reasonOf({ also, why, hand, stale }: StripReply): string {
  if (also !== null) return t("alsoAsksAlso", { also });
  return [stale ? t("behindItsOriginal") : "", why, hand ?? ""].filter((words) => words !== "").join(", ");
}

function firstWords(reply: StripReply): string {
  const text = (node: unknown): string => {
    if (typeof node !== "object" || node === null) return "";
    const { text: own, content, type } = node as { text?: string; content?: unknown[]; type?: string };
    if (type === "token" || type === "blank") return "…";
    return own ?? (content ?? []).map(text).join(type === "paragraph" ? "" : " ");
  };
  return text(reply.document).slice(0, 160);
}
