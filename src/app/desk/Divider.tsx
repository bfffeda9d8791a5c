import { useRef, type KeyboardEvent, type PointerEvent } from 'react';
import { prefer, usePreferences } from '../state/preferences';

const [least, most] = [20, 75];
const within = (percent: number) => Math.round(Math.max(least, Math.min(most, percent)));

/** The divider between the rows and the reading area: dragged, or moved by the arrow keys. Its place is kept. */
export function Divider({ side }: { side: 'right' | 'below' }) {
  const { rowsWidth, rowsHeight } = usePreferences();
  const element = useRef<HTMLDivElement>(null);
  const upright = side === 'right';
  const percent = upright ? rowsWidth : rowsHeight;
  const set = (value: number) => prefer(upright ? { rowsWidth: within(value) } : { rowsHeight: within(value) });
  const drag = (event: PointerEvent) => {
    const room = element.current?.parentElement?.getBoundingClientRect();
    if (!room || !event.currentTarget.hasPointerCapture(event.pointerId)) return;
    set(upright ? ((event.clientX - room.left) / room.width) * 100 : ((event.clientY - room.top) / room.height) * 100);
  };
  const press = (event: KeyboardEvent) => {
    const by = { ArrowLeft: -2, ArrowUp: -2, ArrowRight: 2, ArrowDown: 2 }[event.key];
    if (by === undefined) return;
    event.preventDefault();
    event.stopPropagation();
    set(percent + by);
  };
  return (
    <div
      ref={element}
      role="separator"
      tabIndex={0}
      aria-label="Divider between rows and reading area"
      aria-orientation={upright ? 'vertical' : 'horizontal'}
      aria-valuenow={percent}
      aria-valuemin={least}
      aria-valuemax={most}
      className={`hidden shrink-0 touch-none bg-base-300 hover:bg-primary lg:block ${upright ? 'w-1 cursor-col-resize' : 'h-1 cursor-row-resize'}`}
      onPointerDown={(event) => event.currentTarget.setPointerCapture(event.pointerId)}
      onPointerMove={drag}
      onKeyDown={press}
    />
  );
}
