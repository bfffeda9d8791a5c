import { useVirtualizer } from '@tanstack/react-virtual';
import { useEffect, useImperativeHandle, useRef, useState, type Ref } from 'react';
import type { Setup } from '../../core/line/setup';
import type { View } from '../../mailroom/api';
import { clearTicks, tick, tickMany, useDesk } from '../state/desk';
import { RowItem } from './RowItem';
import type { Rows } from './useRows';

const rowHeight = 58;

/** What the desk may ask of the list. */
export interface RowListHandle {
  focus: () => void;
  reveal: (index: number) => void;
}

interface RowListProps {
  view: View;
  name: string;
  rows: Rows;
  setup: Setup;
  open: number | null;
  onOpen: (id: number) => void;
  handle: Ref<RowListHandle>;
}

/** The rows of a view: only those in sight are in the page. */
export function RowList({ view, name, rows, setup, open, onOpen, handle }: RowListProps) {
  const scroller = useRef<HTMLDivElement>(null);
  const { ticked, allOf, anchor } = useDesk();
  const [now, setNow] = useState(() => Date.now());
  const total = rows.total ?? 0;
  const virtual = useVirtualizer({
    count: total,
    getScrollElement: () => scroller.current,
    estimateSize: () => rowHeight,
    overscan: 8,
  });
  const items = virtual.getVirtualItems();
  const first = items[0]?.index ?? 0;
  const last = items.at(-1)?.index ?? 0;
  const { show } = rows;
  useEffect(() => show(first, last), [show, first, last]);

  useEffect(() => {
    // “14:05” becomes “Tue” at midnight, also on a page that stays open.
    const timer = setInterval(() => setNow(Date.now()), 60_000);
    return () => clearInterval(timer);
  }, []);

  useImperativeHandle(
    handle,
    () => ({
      focus: () => scroller.current?.focus(),
      reveal: (index) => virtual.scrollToIndex(index, { align: 'auto' }),
    }),
    [virtual],
  );

  const wholeView = allOf !== null && JSON.stringify(allOf) === JSON.stringify(view);

  const tickRange = (index: number) => {
    const ids: number[] = [];
    let from = index;
    for (let i = 0; i < total; i++) if (rows.at(i)?.id === anchor) from = i;
    for (let i = Math.min(from, index); i <= Math.max(from, index); i++) {
      const row = rows.at(i);
      if (row) ids.push(row.id);
    }
    tickMany(ids);
  };

  return (
    <div
      ref={scroller}
      role="grid"
      tabIndex={0}
      aria-label={name}
      aria-rowcount={total}
      aria-multiselectable="true"
      aria-activedescendant={open !== null ? `row-${open}` : undefined}
      data-rows
      className="min-h-0 flex-1 overflow-y-auto"
    >
      <div role="rowgroup" style={{ height: virtual.getTotalSize(), position: 'relative' }}>
        {items.map((item) => {
          const row = rows.at(item.index);
          return (
            <div
              key={item.key}
              role="presentation"
              style={{
                position: 'absolute',
                top: 0,
                left: 0,
                right: 0,
                height: rowHeight,
                transform: `translateY(${item.start}px)`,
              }}
            >
              {row ? (
                <RowItem
                  row={row}
                  index={item.index}
                  view={view}
                  setup={setup}
                  now={now}
                  open={row.id === open}
                  ticked={wholeView || ticked.has(row.id)}
                  onTick={(on, range) => (range ? tickRange(item.index) : tick(row.id, on))}
                  onOpen={(event) => {
                    if (event.shiftKey) return tickRange(item.index);
                    if (event.ctrlKey || event.metaKey) return tick(row.id, !ticked.has(row.id));
                    if (ticked.size || allOf) clearTicks();
                    onOpen(row.id);
                  }}
                />
              ) : (
                <div
                  role="row"
                  aria-rowindex={item.index + 1}
                  aria-busy="true"
                  className="h-full border-b border-base-300 p-3"
                >
                  <div role="gridcell" className="h-3 w-1/2 rounded bg-base-300" aria-label="Loading" />
                </div>
              )}
            </div>
          );
        })}
      </div>
    </div>
  );
}
