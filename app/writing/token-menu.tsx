import { useEffect, useId, useMemo, useRef, useState, type KeyboardEvent } from "react";
import { nearest, type ValueRow } from "./token-list";

interface Props {
  rows: ValueRow[];
  /** Where it opens, in the window. */
  at: { left: number; top: number };
  onPick: (row: ValueRow) => void;
  /** A new blank of this name is wanted. */
  onNewBlank: ((words: string) => void) | null;
  /** @param literal whether the brace itself is wanted */
  onClose: (literal: boolean) => void;
}

const WIDTH = 400;
const HEIGHT = 360;

/** The searchable list of values: tokens by group, each with its value on the case being tried, and the reply's blanks. */
export function TokenMenu({ rows, at, onPick, onNewBlank, onClose }: Props) {
  const id = useId();
  const [searched, setSearched] = useState("");
  const [current, setCurrent] = useState(0);
  const list = useRef<HTMLUListElement>(null);
  const found = useMemo(() => nearest(rows, searched), [rows, searched]);
  const offersBlank = onNewBlank !== null && /^[\p{L}][\p{L}\p{N} ?_-]*$/u.test(searched.trim());
  const count = found.length + (offersBlank ? 1 : 0);
  const active = Math.min(current, Math.max(0, count - 1));

  useEffect(() => {
    list.current?.querySelector('[aria-selected="true"]')?.scrollIntoView({ block: "nearest" });
  }, [active, found]);

  const pick = (index: number) => {
    const row = found[index];
    if (row) onPick(row);
    else if (offersBlank) onNewBlank(searched.trim());
  };
  const onKeyDown = (event: KeyboardEvent) => {
    if (event.key === "ArrowDown") setCurrent(Math.min(count - 1, active + 1));
    else if (event.key === "ArrowUp") setCurrent(Math.max(0, active - 1));
    else if (event.key === "Enter" || event.key === "Tab") pick(active);
    else if (event.key === "Escape") onClose(searched === "");
    else return;
    event.preventDefault();
    event.stopPropagation();
  };

  const left = Math.max(8, Math.min(at.left, window.innerWidth - WIDTH - 8));
  // Above the line where there is no room below it.
  const place =
    at.top + HEIGHT > window.innerHeight ? { bottom: window.innerHeight - at.top + 28 } : { top: at.top + 4 };
  return (
    <div
      className="fixed z-50 flex flex-col border border-ink bg-sheet shadow-lg"
      style={{ left, ...place, width: WIDTH, maxHeight: HEIGHT }}
      onBlur={(event) => {
        if (!event.currentTarget.contains(event.relatedTarget)) onClose(false);
      }}
    >
      <input
        autoFocus
        role="combobox"
        aria-label="Find a value"
        aria-expanded="true"
        aria-controls={`${id}-list`}
        aria-activedescendant={`${id}-${active}`}
        placeholder="first name, booking, fee…"
        className="border-b border-line bg-sheet px-3 py-2 outline-none"
        value={searched}
        onChange={(event) => {
          setSearched(event.target.value);
          setCurrent(0);
        }}
        onKeyDown={onKeyDown}
        autoComplete="off"
        spellCheck={false}
      />
      <ul
        ref={list}
        id={`${id}-list`}
        role="listbox"
        aria-label="Values"
        className="min-h-0 grow overflow-y-auto py-1 text-sm"
      >
        {found.map((row, index) => {
          const heading = searched === "" && found[index - 1]?.group !== row.group ? row.group : null;
          return (
            <li key={`${row.kind} ${row.name}`} role="presentation">
              {heading && <p className="px-3 pt-2 pb-0.5 font-bold">{heading}</p>}
              <div
                id={`${id}-${index}`}
                role="option"
                aria-selected={index === active}
                tabIndex={-1}
                className="flex cursor-pointer items-baseline gap-3 px-3 py-1 aria-selected:bg-wash"
                onPointerDown={(event) => {
                  event.preventDefault();
                  pick(index);
                }}
              >
                <span className={row.kind === "blank" ? "border border-dotted border-ink px-1" : ""}>
                  {row.label}
                </span>
                <span className="ml-auto max-w-44 truncate text-right">
                  {row.sample ? (
                    <span className="font-serif">{row.sample}</span>
                  ) : (
                    <span className="text-soft">nothing here</span>
                  )}
                  {row.uncertain && <span className="block truncate text-xs text-look">{row.uncertain}</span>}
                </span>
              </div>
            </li>
          );
        })}
        {offersBlank && (
          <li role="presentation">
            <div
              id={`${id}-${found.length}`}
              role="option"
              aria-selected={active === found.length}
              tabIndex={-1}
              className="cursor-pointer px-3 py-1 aria-selected:bg-wash"
              onPointerDown={(event) => {
                event.preventDefault();
                pick(found.length);
              }}
            >
              a new blank “{searched.trim()}”, for the agent to fill
            </div>
          </li>
        )}
        {count === 0 && <li className="px-3 py-2 text-soft">There is no such value.</li>}
      </ul>
    </div>
  );
}
