import {
  closestCenter,
  DndContext,
  KeyboardSensor,
  PointerSensor,
  useSensor,
  useSensors,
  type CollisionDetection,
  type DragEndEvent,
  type KeyboardCoordinateGetter,
} from "@dnd-kit/core";
import { SortableContext, useSortable, verticalListSortingStrategy } from "@dnd-kit/sortable";
import { GripVertical } from "lucide-react";
import type { CSSProperties, ReactNode } from "react";
import { useTranslation } from "react-i18next";
import { useDragWords } from "./useDragWords";

/** A row that can be dragged: its name for screen readers, and what it may change places with. */
export interface MovableRow {
  id: string;
  name: string;
  among?: string;
}

interface Props {
  rows: readonly MovableRow[];
  /** A row was dropped on another. */
  onDrop: (from: string, to: string) => void;
  children: ReactNode;
}

// So far a finger or mouse moves before it drags, px: less is a press.
const PRESS_PX = 5;

/** Rows below each other that are dragged by their grips, with a mouse, a finger or the keys. */
export function MovableRows({ rows, onDrop, children }: Props) {
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: PRESS_PX } }),
    useSensor(KeyboardSensor, { coordinateGetter: toTheNext }),
  );
  const words = useDragWords(rows);
  const ended = ({ active, over }: DragEndEvent) => {
    if (over && over.id !== active.id) onDrop(String(active.id), String(over.id));
  };
  return (
    <DndContext
      sensors={sensors}
      collisionDetection={amongItsOwn}
      accessibility={words}
      onDragEnd={ended}
    >
      <SortableContext items={rows.map(({ id }) => id)} strategy={verticalListSortingStrategy}>
        {children}
      </SortableContext>
    </DndContext>
  );
}

/** Of rows within rows only those beside the dragged one count. */
const amongItsOwn: CollisionDetection = ({ droppableContainers, ...rest }) =>
  closestCenter({
    ...rest,
    droppableContainers: droppableContainers.filter(
      (one) => one.data.current?.among === rest.active.data.current?.among,
    ),
  });

/** The arrow keys go to the next row of its own, past those that lie within another. */
const toTheNext: KeyboardCoordinateGetter = (event, { currentCoordinates, context }) => {
  const by = { ArrowUp: -1, ArrowDown: 1 }[event.code];
  const { active, over, droppableContainers, droppableRects } = context;
  if (by === undefined || !active) return undefined;
  event.preventDefault();
  const own = droppableContainers
    .getEnabled()
    .filter((one) => one.data.current?.among === active.data.current?.among)
    .map(({ id }) => ({ id, top: droppableRects.get(id)?.top ?? 0 }))
    .sort((a, b) => a.top - b.top);
  const at = own.findIndex(({ id }) => id === (over ?? active).id);
  const next = own[at + by];
  return next && { x: currentCoordinates.x, y: next.top };
};

interface Draggable {
  /** For the row's own element. */
  place: (element: HTMLElement | null) => void;
  style: CSSProperties;
  lifted: boolean;
  /** What it is dragged by. */
  grip: ReactNode;
}

/** One of the rows: `MovableRows` has to stand around it. */
export function useMovable({ id, name, among }: MovableRow): Draggable {
  const { t } = useTranslation();
  const sorted = useSortable({
    id,
    data: { among },
    attributes: { roleDescription: t("drag.row") },
  });
  const { setNodeRef, setActivatorNodeRef, attributes, listeners } = sorted;
  const { transform, transition, isDragging } = sorted;
  return {
    place: setNodeRef,
    style: {
      transform: transform ? `translateY(${transform.y}px)` : undefined,
      transition,
      position: isDragging ? "relative" : undefined,
      zIndex: isDragging ? 1 : undefined,
    },
    lifted: isDragging,
    grip: (
      <button
        type="button"
        ref={setActivatorNodeRef}
        {...attributes}
        {...listeners}
        aria-label={t("drag.grip", { name })}
        data-grip
        data-testid="grip"
        className="flex min-h-[44px] w-[26px] shrink-0 cursor-grab touch-none items-center text-muted"
      >
        <GripVertical aria-hidden="true" size={18} />
      </button>
    ),
  };
}
