import { useRef, useState, type KeyboardEvent, type PointerEvent } from 'react';
import { weekdayNames } from '../../core/delivery/rounds';
import { cellMinutes, cellsOf, cellsOfDay, copied, painted, type Timetable } from '../../core/delivery/timetable';
import { timeOfDay, weekdays, type Weekday } from '../../core/delivery/week';

/** A cell of the week: a day, and which half hour of it. */
interface Cell {
  day: number;
  at: number;
}

interface WeekGridProps {
  timetable: Timetable;
  onChange: (timetable: Timetable) => void;
}

const timeOf = (at: number) => `${timeOfDay(at * cellMinutes)} to ${timeOfDay((at + 1) * cellMinutes)}`;
const workingDays: readonly Weekday[] = ['MO', 'TU', 'WE', 'TH', 'FR'];

/** To which days one is copied. */
function CopyTo({ day, onCopy }: { day: Weekday; onCopy: (to: readonly Weekday[]) => void }) {
  return (
    <select
      className="select w-16 select-xs"
      aria-label={`Copy ${weekdayNames[day]} to`}
      value=""
      onChange={({ target: { value } }) =>
        onCopy(value === 'working' ? workingDays : value === 'all' ? weekdays : weekdays.filter((one) => one === value))
      }
    >
      <option value="" disabled hidden>
        copy
      </option>
      <option value="working">Monday to Friday</option>
      <option value="all">every day</option>
      {weekdays
        .filter((other) => other !== day)
        .map((other) => (
          <option key={other} value={other}>
            {weekdayNames[other]}
          </option>
        ))}
    </select>
  );
}

/** What is painted, by a stroke or by keys. */
function usePainting({ timetable, onChange }: WeekGridProps) {
  const [here, setHere] = useState<Cell>({ day: 0, at: 18 });
  /** What a stroke paints, and where it began. */
  const [stroke, setStroke] = useState<{ open: boolean; from: Cell; to: Cell } | null>(null);
  const grid = useRef<HTMLDivElement>(null);
  const rows = weekdays.map((day) => cellsOf(timetable, day));

  const strokes = (one: typeof stroke, day: number, at: number) =>
    one !== null &&
    day >= Math.min(one.from.day, one.to.day) &&
    day <= Math.max(one.from.day, one.to.day) &&
    at >= Math.min(one.from.at, one.to.at) &&
    at <= Math.max(one.from.at, one.to.at);

  const paint = (from: Cell, to: Cell, open: boolean) => {
    let next = timetable;
    for (let day = Math.min(from.day, to.day); day <= Math.max(from.day, to.day); day++)
      next = painted(next, weekdays[day], Math.min(from.at, to.at), Math.max(from.at, to.at), open);
    onChange(next);
  };

  /** The cell under the pointer; a finger that was put down stays with the cell where it was. */
  const cellAt = (event: PointerEvent): Cell | null => {
    const element = document.elementFromPoint(event.clientX, event.clientY)?.closest<HTMLElement>('[data-cell]');
    const [day, at] = (element?.dataset.cell ?? '').split(' ').map(Number);
    return element && grid.current?.contains(element) ? { day, at } : null;
  };

  const press = (event: PointerEvent) => {
    const cell = cellAt(event);
    if (!cell || event.button !== 0) return;
    event.preventDefault();
    grid.current?.setPointerCapture(event.pointerId);
    setHere(cell);
    setStroke({ open: !rows[cell.day][cell.at], from: cell, to: cell });
  };

  const go = (event: KeyboardEvent) => {
    const steps: Record<string, [day: number, at: number]> = {
      ArrowRight: [0, 1],
      ArrowLeft: [0, -1],
      ArrowDown: [1, 0],
      ArrowUp: [-1, 0],
      Home: [0, -cellsOfDay],
      End: [0, cellsOfDay],
    };
    if (event.key === ' ' || event.key === 'Enter') {
      event.preventDefault();
      return paint(here, here, !rows[here.day][here.at]);
    }
    const step = steps[event.key];
    if (!step) return;
    event.preventDefault();
    event.stopPropagation();
    const next = {
      day: Math.max(0, Math.min(here.day + step[0], 6)),
      at: Math.max(0, Math.min(here.at + step[1], cellsOfDay - 1)),
    };
    // What was turned last goes on.
    if (event.shiftKey) paint(here, next, rows[here.day][here.at]);
    setHere(next);
    grid.current?.querySelector<HTMLElement>(`[data-cell="${next.day} ${next.at}"]`)?.focus();
  };

  const move = (event: PointerEvent) => {
    const cell = stroke && cellAt(event);
    if (stroke && cell && (cell.day !== stroke.to.day || cell.at !== stroke.to.at)) setStroke({ ...stroke, to: cell });
  };
  const release = () => {
    if (stroke) paint(stroke.from, stroke.to, stroke.open);
    setStroke(null);
  };
  const cancel = () => setStroke(null);
  return { grid, rows, here, stroke, strokes, press, move, release, cancel, go };
}

/**
 * A week to paint on, by half hours: a press turns a cell, a stroke of mouse or finger paints what it goes over, the arrow
 * keys go about, Space turns, and Shift with an arrow paints on.
 */
export function WeekGrid({ timetable, onChange }: WeekGridProps) {
  const { grid, rows, here, stroke, strokes, press, move, release, cancel, go } = usePainting({ timetable, onChange });
  return (
    <div className="overflow-x-auto pb-1">
      <div
        ref={grid}
        role="grid"
        aria-label="Hours in which mail comes"
        className="min-w-[34rem] touch-pan-y select-none"
        onPointerDown={press}
        onPointerMove={move}
        onPointerUp={release}
        onPointerCancel={cancel}
        onKeyDown={go}
      >
        <div className="quiet flex pl-20 text-xs tabular-nums" aria-hidden>
          {Array.from({ length: 12 }, (_, i) => (
            <span key={i} className="flex-1">
              {timeOfDay(i * 120).slice(0, 2)}
            </span>
          ))}
          <span className="w-18" />
        </div>
        {weekdays.map((day, n) => (
          <div key={day} role="row" className="flex items-stretch">
            <span role="rowheader" className="w-20 shrink-0 py-1 text-sm">
              {weekdayNames[day]}
            </span>
            <div role="presentation" className="flex flex-1 touch-none border-l border-base-300">
              {rows[n].map((isOpen, at) => {
                const open = stroke && strokes(stroke, n, at) ? stroke.open : isOpen;
                return (
                  <div
                    key={at}
                    role="gridcell"
                    data-cell={`${n} ${at}`}
                    tabIndex={here.day === n && here.at === at ? 0 : -1}
                    aria-selected={open}
                    aria-label={`${weekdayNames[day]} ${timeOf(at)}: ${open ? 'mail comes' : 'mail waits'}`}
                    title={`${weekdayNames[day]} ${timeOf(at)}`}
                    className={`h-7 flex-1 cursor-pointer border-b border-base-300 ${at % 2 ? 'border-r' : 'border-r border-r-transparent'} ${open ? 'bg-primary' : 'bg-base-100 hover:bg-base-300'}`}
                  />
                );
              })}
            </div>
            <span role="gridcell" className="flex w-18 shrink-0 items-center justify-end">
              <CopyTo day={day} onCopy={(to) => onChange(copied(timetable, day, to))} />
            </span>
          </div>
        ))}
      </div>
    </div>
  );
}
