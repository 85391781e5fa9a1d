import { Command } from "cmdk";
import { Popover as Radix } from "radix-ui";
import { useMemo, useRef, useState } from "react";
import { LIST_ITEM } from "../../ui/searched-list";
import { nearest, type ValueRow } from "./token-list";
import { t } from "../../words/writing";

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

/** Stands for the new blank among the rows. */
const NEW_BLANK = "new";

/** The searchable list of values: tokens by group, each with its value on the case being tried, and the reply's blanks. */
export function TokenMenu({ rows, at, onPick, onNewBlank, onClose }: Props) {
  const [searched, setSearched] = useState("");
  const found = useMemo(() => nearest(rows, searched), [rows, searched]);
  const words = searched.trim();
  const offersBlank = onNewBlank !== null && /^[\p{L}][\p{L}\p{N} ?_-]*$/u.test(words);
  const first = found[0] ? keyOf(found[0]) : offersBlank ? NEW_BLANK : "";
  // What was gone to with the arrows; searching goes back to the nearest.
  const [gone, setGone] = useState({ searched, to: first });
  const current = gone.searched === searched && gone.to !== "" ? gone.to : first;
  const pick = (key: string) => {
    const row = found.find((one) => keyOf(one) === key);
    if (row) onPick(row);
    else if (offersBlank && key === NEW_BLANK) onNewBlank(words);
  };
  const place = useRef({ getBoundingClientRect: () => new DOMRect(at.left, at.top - 20, 0, 24) });
  const groups = searched === "" ? [...new Set(found.map((row) => row.group))] : [""];

  return (
    <Radix.Root open onOpenChange={(open) => !open && onClose(false)}>
      <Radix.Anchor virtualRef={place} />
      <Radix.Portal>
        <Radix.Content
          align="start"
          sideOffset={2}
          collisionPadding={8}
          aria-label={t("findAValue")}
          className="z-50 flex max-h-[min(360px,var(--radix-popover-content-available-height))] w-100 flex-col border border-ink bg-sheet shadow-lg outline-none"
          onEscapeKeyDown={(event) => {
            event.preventDefault();
            onClose(searched === "");
          }}
          // Whoever opened it says where writing goes on.
          onCloseAutoFocus={(event) => event.preventDefault()}
        >
          <Command
            label={t("findAValue")}
            shouldFilter={false}
            value={current}
            onValueChange={(to) => setGone({ searched, to })}
            className="flex min-h-0 flex-col"
            onKeyDown={(event) => {
              if (event.key !== "Tab") return;
              event.preventDefault();
              pick(current);
            }}
          >
            <Command.Input
              aria-label={t("findAValue")}
              placeholder={t("firstNameCaseNumberFee")}
              className="border-b border-line bg-sheet px-3 py-2 outline-none"
              value={searched}
              onValueChange={setSearched}
            />
            <Command.List label={t("values")} className="min-h-0 grow overflow-y-auto py-1 text-sm">
              {groups.map((group) => (
                <Command.Group
                  key={group}
                  heading={group || undefined}
                  className="[&_[cmdk-group-heading]]:px-3 [&_[cmdk-group-heading]]:pt-2 [&_[cmdk-group-heading]]:pb-0.5 [&_[cmdk-group-heading]]:font-bold"
                >
                  {found
                    .filter((row) => group === "" || row.group === group)
                    .map((row) => (
                      <Command.Item
                        key={keyOf(row)}
                        value={keyOf(row)}
                        onSelect={() => onPick(row)}
                        className={`flex items-baseline gap-3 ${LIST_ITEM}`}
                      >
                        <Value row={row} />
                      </Command.Item>
                    ))}
                </Command.Group>
              ))}
              {offersBlank && (
                <Command.Item value={NEW_BLANK} onSelect={() => onNewBlank(words)} className={LIST_ITEM}>
                  {t("aNewBlankWordsForThe", { words })}
                </Command.Item>
              )}
              {found.length === 0 && !offersBlank && (
                <p className="px-3 py-2 text-soft">{t("thereIsNoSuchValue")}</p>
              )}
            </Command.List>
          </Command>
        </Radix.Content>
      </Radix.Portal>
    </Radix.Root>
  );
}

const keyOf = (row: ValueRow) => `${row.kind} ${row.name}`;

function Value({ row }: { row: ValueRow }) {
  return (
    <>
      <span className={row.kind === "blank" ? "border border-dotted border-ink px-1" : ""}>{row.label}</span>
      <span className="ml-auto max-w-44 truncate text-right">
        {row.sample ? (
          <span className="font-serif">{row.sample}</span>
        ) : (
          <span className="text-soft">{t("nothingHere")}</span>
        )}
        {row.uncertain && <span className="block truncate text-xs text-look">{row.uncertain}</span>}
      </span>
    </>
  );
}
