import { useState, type DragEvent, type KeyboardEvent } from "react";

/**
 * Puts a list into another order, by dragging its items or by Alt with the arrows on a focused one.
 * @param keys the order as it is stored
 * @param onOrder called with a new order, once it is settled
 * @returns the order to show, and the attributes of an item
 */
export function useReorder(keys: string[], onOrder: (keys: string[]) => void | Promise<void>) {
  const stored = keys.join("\n");
  const [changed, setChanged] = useState<{ from: string; order: string[] } | null>(null);
  const [dragged, setDragged] = useState<string | null>(null);
  const order = changed?.from === stored ? changed.order : keys;
  const setOrder = (next: string[]) => setChanged({ from: stored, order: next });

  const moved = (key: string, to: number) => {
    const rest = order.filter((one) => one !== key);
    return [...rest.slice(0, to), key, ...rest.slice(to)];
  };
  const settle = (next: string[]) => {
    setOrder(next);
    if (next.join("\n") !== stored) void onOrder(next);
  };

  const itemProps = (key: string) => ({
    draggable: true,
    "data-dragged": dragged === key ? "" : undefined,
    className: "data-dragged:opacity-40",
    onDragStart: (event: DragEvent) => {
      event.dataTransfer.effectAllowed = "move";
      event.dataTransfer.setData("text/plain", key);
      setDragged(key);
    },
    onDragOver: (event: DragEvent) => {
      if (dragged === null) return;
      event.preventDefault();
      const to = order.indexOf(key);
      if (order[to] !== dragged) setOrder(moved(dragged, to));
    },
    onDrop: (event: DragEvent) => {
      event.preventDefault();
      if (dragged !== null) settle(order);
    },
    onDragEnd: () => {
      if (dragged !== null) settle(order);
      setDragged(null);
    },
    onKeyDown: (event: KeyboardEvent) => {
      const step = event.key === "ArrowUp" ? -1 : event.key === "ArrowDown" ? 1 : 0;
      const to = order.indexOf(key) + step;
      if (!event.altKey || step === 0 || to < 0 || to >= order.length) return;
      event.preventDefault();
      event.stopPropagation();
      settle(moved(key, to));
    },
  });
  return { order, itemProps };
}
