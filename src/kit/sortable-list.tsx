'use client';

import {
  closestCenter,
  DndContext,
  KeyboardSensor,
  PointerSensor,
  useSensor,
  useSensors,
  type DragEndEvent,
} from '@dnd-kit/core';
import {
  arrayMove,
  horizontalListSortingStrategy,
  SortableContext,
  sortableKeyboardCoordinates,
  useSortable,
  verticalListSortingStrategy,
} from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import clsx from 'clsx';
import { GripVertical } from 'lucide-react';
import { useId, type CSSProperties, type ReactNode } from 'react';
import { desk } from '@/words/desk';

type Props = {
  /** One id for each row, in order. */
  ids: string[];
  /** What a row is called when a screen reader says where it is. */
  nameOf: (id: string) => string;
  /** `aside`: by how many pixels the row was drawn to the right. */
  onMove: (ids: string[], from: number, to: number, aside: number) => void;
  /** Drawing a row aside means something too, where it stays in its place. */
  isTree?: boolean;
  across?: boolean;
  className?: string;
  label?: string;
  children: ReactNode;
};

/** A list whose rows can be dragged into another order, by mouse, touch and keyboard. */
export function SortableList({
  ids,
  nameOf,
  onMove,
  isTree = false,
  across = false,
  className,
  label,
  children,
}: Props) {
  const id = useId();
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 4 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  const end = ({ active, over, delta }: DragEndEvent): void => {
    const [from, to] = [ids.indexOf(String(active.id)), ids.indexOf(String(over?.id))];
    if (from !== -1 && to !== -1 && (from !== to || (isTree && Math.abs(delta.x) > 12)))
      onMove(arrayMove(ids, from, to), from, to, delta.x);
  };
  const place = (over: string | number | undefined): string =>
    over === undefined
      ? desk('desk-kit.drag-nowhere')
      : desk('desk-kit.drag-place', { at: ids.indexOf(String(over)) + 1, count: ids.length });
  return (
    <DndContext
      id={id}
      sensors={sensors}
      collisionDetection={closestCenter}
      onDragEnd={end}
      accessibility={{
        screenReaderInstructions: {
          draggable: desk('desk-kit.drag-help'),
        },
        announcements: {
          onDragStart: ({ active }) =>
            desk('desk-kit.drag-start', { name: nameOf(String(active.id)), place: place(active.id) }),
          onDragOver: ({ active, over }) =>
            desk('desk-kit.drag-over', { name: nameOf(String(active.id)), place: place(over?.id) }),
          onDragEnd: ({ active, over }) =>
            desk('desk-kit.drag-end', { name: nameOf(String(active.id)), place: place(over?.id) }),
          onDragCancel: ({ active }) => desk('desk-kit.drag-cancel', { name: nameOf(String(active.id)) }),
        },
      }}
    >
      <SortableContext
        items={ids}
        strategy={across ? horizontalListSortingStrategy : verticalListSortingStrategy}
      >
        <ul className={className} aria-label={label}>
          {children}
        </ul>
      </SortableContext>
    </DndContext>
  );
}

type RowProps = {
  id: string;
  name: string;
  className?: string;
  style?: CSSProperties;
  isFixed?: boolean;
  children: ReactNode;
};

/** A row with a handle. Only the handle drags, so that what is in the row can be used. */
export function SortableRow({ id, name, className, style, isFixed = false, children }: RowProps) {
  const { attributes, listeners, setNodeRef, setActivatorNodeRef, transform, transition, isDragging } =
    useSortable({ id, disabled: isFixed });
  return (
    <li
      ref={setNodeRef}
      style={{ ...style, transform: CSS.Translate.toString(transform), transition }}
      className={clsx(className, isDragging && 'relative z-10 shadow-lg')}
    >
      {!isFixed && (
        <button
          type="button"
          ref={setActivatorNodeRef}
          {...attributes}
          {...listeners}
          aria-label={desk('desk-kit.drag', { name })}
          className="-ml-2 grid size-8 flex-none cursor-grab touch-none place-items-center rounded text-muted hover:bg-sunken hover:text-ink active:cursor-grabbing"
        >
          <GripVertical className="size-4.5" aria-hidden />
        </button>
      )}
      {children}
    </li>
  );
}
