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
  SortableContext,
  sortableKeyboardCoordinates,
  useSortable,
  verticalListSortingStrategy,
} from "@dnd-kit/sortable";
import { CSS } from "@dnd-kit/utilities";
import { GripVertical } from "lucide-react";
import { useId, type ComponentProps, type ReactNode } from "react";
import { t } from "../words/ui";

interface Props {
  /** The order that is shown. */
  keys: readonly string[];
  /** What an item is called when it is spoken of. */
  nameOf: (key: string) => string;
  /** Called where one is put down at another's place. */
  onMove: (key: string, to: number) => void;
  /** Whether the order cannot be changed. */
  fixed?: boolean;
  /** Among them, what stands in the order: each calls `useSorted`. */
  children: ReactNode;
}

const upAndDown: Modifier = ({ transform }) => ({ ...transform, x: 0 });

/** What is put into another order by its handles: with the mouse, a finger, or the keyboard, and spoken. */
export function Sortable({ keys, nameOf, onMove, fixed = false, children }: Props) {
  const id = useId();
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 4 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  const at = (key: string | number) => ({
    name: nameOf(String(key)),
    place: keys.indexOf(String(key)) + 1,
    count: keys.length,
  });
  const place = (key: string | number) => {
    const { place, count } = at(key);
    return { place, count };
  };
  const announcements: Announcements = {
    onDragStart: ({ active }) => t("isLifted", at(active.id)),
    onDragOver: ({ active, over }) =>
      over ? t("wouldStandAt", { ...at(active.id), ...place(over.id) }) : undefined,
    onDragEnd: ({ active, over }) =>
      over
        ? t("isPutDownAt", { ...at(active.id), ...place(over.id) })
        : t("isPutDown", { name: at(active.id).name }),
    onDragCancel: ({ active }) => t("staysWhereItWas", { name: at(active.id).name }),
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
          draggable: t("howToMoveIt"),
        },
      }}
      onDragEnd={({ active, over }: DragEndEvent) => {
        if (over) onMove(String(active.id), keys.indexOf(String(over.id)));
      }}
    >
      <SortableContext items={[...keys]} strategy={verticalListSortingStrategy} disabled={fixed}>
        {children}
      </SortableContext>
    </DndContext>
  );
}

interface Sorted {
  /** For the element that moves. */
  placed: Pick<ComponentProps<"div">, "style"> & { ref: (element: HTMLElement | null) => void };
  /** Where it is taken hold of. */
  handle: ReactNode;
  isDragging: boolean;
}

/** One of what is sorted. @param name what it is called */
export function useSorted(id: string, name: string): Sorted {
  const { attributes, listeners, setNodeRef, setActivatorNodeRef, transform, transition, isDragging } =
    useSortable({ id });
  return {
    placed: { ref: setNodeRef, style: { transform: CSS.Translate.toString(transform), transition } },
    isDragging,
    handle: (
      <button
        ref={setActivatorNodeRef}
        {...attributes}
        {...listeners}
        type="button"
        aria-label={t("moveName", { name })}
        className="-my-1 flex size-6 shrink-0 cursor-grab touch-none items-center justify-center self-center text-soft hover:text-ink"
      >
        <GripVertical size={16} aria-hidden="true" />
      </button>
    ),
  };
}
