import { arrayMove } from "@dnd-kit/sortable";
import { useRef, useState, type ReactNode } from "react";
import { flushSync } from "react-dom";
import { Sortable, useSorted } from "./sortable";
import { useShortcut } from "./use-shortcut";

export interface SortedProps {
  /** Name of the list. */
  label: string;
  /** The order as it is stored. */
  keys: readonly string[];
  /** What an item is called when it is spoken of. */
  nameOf: (key: string) => string;
  /** Called with a new order, once it is settled. */
  onOrder: (keys: string[]) => void | Promise<void>;
  /** Whether the order cannot be changed. */
  fixed?: boolean;
  className?: string;
  itemClassName?: string;
  /** An item; the handle is where it is taken hold of. */
  children: (key: string, handle: ReactNode, index: number) => ReactNode;
}

/** A list that is put into another order by its handles: with the mouse, a finger, or the keyboard, and spoken. */
export default function SortedList({
  label,
  keys,
  nameOf,
  onOrder,
  fixed = false,
  className = "",
  itemClassName = "",
  children,
}: SortedProps) {
  const stored = keys.join("\n");
  const [changed, setChanged] = useState<{ from: string; order: string[] } | null>(null);
  // Shown at once; what the server has counts as soon as it is another.
  const order = changed?.from === stored ? changed.order : [...keys];
  const settle = (next: string[]) => {
    if (next.join("\n") === order.join("\n")) return;
    setChanged({ from: stored, order: next });
    void onOrder(next);
  };

  const step = (by: number) => (event: KeyboardEvent) => {
    const handle = event.target instanceof HTMLElement ? event.target : null;
    const from = order.indexOf(handle?.closest<HTMLElement>("[data-key]")?.dataset.key ?? "");
    const to = from + by;
    if (fixed || from < 0 || to < 0 || to >= order.length) return;
    flushSync(() => settle(arrayMove(order, from, to)));
    handle?.focus();
  };
  const list = useRef<HTMLUListElement>(null);
  useShortcut("orderUp", step(-1), { within: list });
  useShortcut("orderDown", step(1), { within: list });

  return (
    <Sortable
      keys={order}
      nameOf={nameOf}
      fixed={fixed}
      onMove={(key, to) => settle(arrayMove(order, order.indexOf(key), to))}
    >
      <ul ref={list} aria-label={label} className={className}>
        {order.map((key, index) => (
          <Item key={key} id={key} name={nameOf(key)} fixed={fixed} className={itemClassName}>
            {(handle) => children(key, handle, index)}
          </Item>
        ))}
      </ul>
    </Sortable>
  );
}

function Item({
  id,
  name,
  fixed,
  className,
  children,
}: {
  id: string;
  name: string;
  fixed: boolean;
  className: string;
  children: (handle: ReactNode) => ReactNode;
}) {
  const { placed, handle, isDragging } = useSorted(id, name);
  return (
    <li
      {...placed}
      data-key={id}
      className={`${className} ${isDragging ? "relative z-10 bg-sheet shadow-md" : ""}`}
    >
      {children(fixed ? null : handle)}
    </li>
  );
}
