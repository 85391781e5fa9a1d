import {
  closestCenter,
  DndContext,
  KeyboardSensor,
  PointerSensor,
  useSensor,
  useSensors,
  type Announcements,
  type DragEndEvent,
  type Modifier,
} from "@dnd-kit/core";
import {
  arrayMove,
  SortableContext,
  sortableKeyboardCoordinates,
  useSortable,
  verticalListSortingStrategy,
} from "@dnd-kit/sortable";
import { CSS } from "@dnd-kit/utilities";
import { GripVertical } from "lucide-react";
import { useCallback, useId, useState, type ReactNode } from "react";
import { flushSync } from "react-dom";
import { useShortcut } from "./use-shortcut";

interface Props {
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

const upAndDown: Modifier = ({ transform }) => ({ ...transform, x: 0 });

/** A list that is put into another order by its handles: with the mouse, a finger, or the keyboard, and spoken. */
export function SortableList({
  label,
  keys,
  nameOf,
  onOrder,
  fixed = false,
  className = "",
  itemClassName = "",
  children,
}: Props) {
  const id = useId();
  const stored = keys.join("\n");
  const [changed, setChanged] = useState<{ from: string; order: string[] } | null>(null);
  // Shown at once; what the server has counts as soon as it is another.
  const order = changed?.from === stored ? changed.order : [...keys];
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 4 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
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
  const up = useShortcut("orderUp", step(-1));
  const down = useShortcut("orderDown", step(1));
  const listRef = useCallback(
    (element: HTMLElement | null) => {
      up(element);
      down(element);
    },
    [up, down],
  );

  const place = (key: string | number) => `place ${order.indexOf(String(key)) + 1} of ${order.length}`;
  const name = (key: string | number) => nameOf(String(key));
  const announcements: Announcements = {
    onDragStart: ({ active }) => `${name(active.id)} is lifted, ${place(active.id)}.`,
    onDragOver: ({ active, over }) =>
      over ? `${name(active.id)} would stand at ${place(over.id)}.` : undefined,
    onDragEnd: ({ active, over }) => `${name(active.id)} is put down${over ? `, ${place(over.id)}` : ""}.`,
    onDragCancel: ({ active }) => `${name(active.id)} stays where it was.`,
  };
  return (
    <DndContext
      id={id}
      sensors={sensors}
      collisionDetection={closestCenter}
      modifiers={[upAndDown]}
      accessibility={{
        announcements,
        screenReaderInstructions: {
          draggable:
            "Space lifts it, the arrow keys move it, Space puts it down, Escape leaves it where it was.",
        },
      }}
      onDragEnd={({ active, over }: DragEndEvent) => {
        if (over) settle(arrayMove(order, order.indexOf(String(active.id)), order.indexOf(String(over.id))));
      }}
    >
      <SortableContext items={order} strategy={verticalListSortingStrategy} disabled={fixed}>
        <ul ref={listRef} aria-label={label} className={className}>
          {order.map((key, index) => (
            <Item key={key} id={key} name={nameOf(key)} fixed={fixed} className={itemClassName}>
              {(handle) => children(key, handle, index)}
            </Item>
          ))}
        </ul>
      </SortableContext>
    </DndContext>
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
  const { attributes, listeners, setNodeRef, setActivatorNodeRef, transform, transition, isDragging } =
    useSortable({ id });
  const handle = fixed ? null : (
    <button
      ref={setActivatorNodeRef}
      {...attributes}
      {...listeners}
      type="button"
      aria-label={`Move ${name}`}
      className="-my-1 flex size-6 shrink-0 cursor-grab touch-none items-center justify-center self-center text-soft hover:text-ink"
    >
      <GripVertical size={16} aria-hidden="true" />
    </button>
  );
  return (
    <li
      ref={setNodeRef}
      data-key={id}
      style={{ transform: CSS.Translate.toString(transform), transition }}
      className={`${className} ${isDragging ? "relative z-10 bg-sheet shadow-md" : ""}`}
    >
      {children(handle)}
    </li>
  );
}
