// A list whose order is the person's: dragged, or moved by the keys.
import { DndContext, KeyboardSensor, PointerSensor, closestCenter, useSensor, useSensors } from '@dnd-kit/core';
import {
  SortableContext,
  sortableKeyboardCoordinates,
  useSortable,
  verticalListSortingStrategy,
} from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import { ArrowDown, ArrowUp, GripVertical } from 'lucide-react';
import type { ReactNode } from 'react';

interface SortableListProps {
  /** What the list is called to a screen reader. */
  label: string;
  ids: readonly string[];
  className: string;
  onMove: (from: number, to: number) => void;
  /** The items, a {@link SortableItem} for each id. */
  children: ReactNode;
}

/** The list. */
export function SortableList({ label, ids, className, onMove, children }: SortableListProps) {
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 4 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  return (
    <DndContext
      sensors={sensors}
      collisionDetection={closestCenter}
      onDragEnd={({ active, over }) => {
        const [from, to] = [ids.indexOf(String(active.id)), ids.indexOf(String(over?.id))];
        if (from >= 0 && to >= 0 && from !== to) onMove(from, to);
      }}
    >
      <SortableContext items={[...ids]} strategy={verticalListSortingStrategy}>
        <ol className={`flex flex-col ${className}`} aria-label={label}>
          {children}
        </ol>
      </SortableContext>
    </DndContext>
  );
}

interface SortableItemProps {
  id: string;
  /** What it is called, in “Drag “…””. */
  name: string;
  label?: string;
  className: string;
  children: ReactNode;
}

/** One of its items, with the handle by which it is dragged. */
export function SortableItem({ id, name, label, className, children }: SortableItemProps) {
  const { attributes, listeners, setNodeRef, setActivatorNodeRef, transform, transition, isDragging } = useSortable({
    id,
  });
  return (
    <li
      ref={setNodeRef}
      style={{ transform: CSS.Transform.toString(transform), transition }}
      className={`flex flex-wrap gap-2 border border-base-300 bg-base-100 ${className} ${isDragging ? 'relative z-10 shadow' : ''}`}
      aria-label={label}
    >
      <button
        type="button"
        ref={setActivatorNodeRef}
        className="btn cursor-grab touch-none btn-square btn-ghost btn-xs"
        {...attributes}
        {...listeners}
        aria-label={`Drag “${name}”`}
        title="Drag; or Space, then the arrow keys"
      >
        <GripVertical size={14} />
      </button>
      {children}
    </li>
  );
}

interface MoveButtonsProps {
  name: string;
  at: number;
  /** How many there are. */
  of: number;
  onMove: (to: number) => void;
}

/** The same without dragging: a place up, a place down. */
export function MoveButtons({ name, at, of, onMove }: MoveButtonsProps) {
  return (
    <>
      <button
        type="button"
        className="btn btn-square btn-ghost btn-xs"
        aria-label={`Move “${name}” up`}
        disabled={at === 0}
        onClick={() => onMove(at - 1)}
      >
        <ArrowUp size={14} />
      </button>
      <button
        type="button"
        className="btn btn-square btn-ghost btn-xs"
        aria-label={`Move “${name}” down`}
        disabled={at === of - 1}
        onClick={() => onMove(at + 1)}
      >
        <ArrowDown size={14} />
      </button>
    </>
  );
}
