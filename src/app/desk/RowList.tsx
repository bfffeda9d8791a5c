import { ArrowUp } from 'lucide-react';
import { count } from '../../core/text/sentences';
import { useDraggable } from '@dnd-kit/core';
import {
  useCallback,
  useEffect,
  useId,
  useImperativeHandle,
  useLayoutEffect,
  useRef,
  type MouseEvent,
  type Ref,
  type RefObject,
} from 'react';
import type { Setup } from '../../core/line/setup';
import type { Row } from '../../mailroom/border/rows';
import type { Grouping, View } from '../../mailroom/border/views';
import { tick, tickRange, useDesk } from '../state/desk';
import { usePreferences } from '../state/preferences';
import { rowTarget, target, type Target } from './deskActs';
import { useSight } from './sight';
import { useTallList, type TallList } from '../ui/tallList';
import { useHeldRows } from './useHeldRows';
import { useStanding } from './useStanding';
import { rowKey, tickedOf } from '../state/ticks';
import { useNow } from '../ui/useNow';
import { RowItem } from './RowItem';
import type { Rows } from './useRows';

/** The height of a row in CSS pixels, at the middle text size. */
const heights = { roomy: 58, tight: 33 };
const scale = { small: 0.94, medium: 1, large: 1.14 };

/** What the desk may ask of the list. */
export interface RowListHandle extends Pick<TallList, 'reveal' | 'stand' | 'movedByHand'> {
  focus: () => void;
}

interface RowListProps {
  view: View;
  grouping: Grouping;
  name: string;
  rows: Rows;
  setup: Setup;
  open: number | null;
  /** The conversation of the open message, to light up what belongs to it; null where nothing is to be lit. */
  openConversation: number | null;
  onOpen: (id: number, index: number) => void;
  handle?: Ref<RowListHandle>;
}

/** Ticks, and what a press on a row or its box does. */
function useTicking({
  view,
  grouping,
  rows,
  open,
  onOpen,
}: Pick<RowListProps, 'view' | 'grouping' | 'rows' | 'open' | 'onOpen'>) {
  const ticked = useDesk((s) => s.ticked);
  const range = (index: number) => tickRange(view, grouping, { index, id: rows.at(index)?.id ?? null }, open);
  const press = (event: MouseEvent, row: Row, index: number) => {
    if (event.shiftKey) return range(index);
    if (event.ctrlKey || event.metaKey) return tick(row, !ticked.has(rowKey(row)));
    // What is ticked stays: one may look into a message before acting on all.
    onOpen(row.id, index);
  };
  // Rows are given functions that never change, so that a row is drawn anew only when something of it has changed.
  const latest = useRef({ press, range });
  useLayoutEffect(() => {
    latest.current = { press, range };
  });
  const onPress = useCallback(
    (event: MouseEvent, row: Row, index: number) => latest.current.press(event, row, index),
    [],
  );
  const onTick = useCallback(
    (row: Row, index: number, on: boolean, ranging: boolean) => (ranging ? latest.current.range(index) : tick(row, on)),
    [],
  );
  return { onPress, onTick, ticking: (row: Row) => tickedOf(ticked, row) };
}

/** Dragging rows: which are taken up. */
function useTakingUp(rows: Rows) {
  const ticked = useDesk((s) => s.ticked);
  // The list is what is dragged, as far as the library knows; which row it is, the press tells.
  const dragged = useRef<Target | null>(null);
  const { setNodeRef, listeners } = useDraggable({ id: useId(), data: { target: dragged } });
  const takeUp = (event: MouseEvent) => {
    const element = event.target instanceof Element ? event.target.closest('[aria-rowindex]') : null;
    const row = element ? rows.at(Number(element.getAttribute('aria-rowindex')) - 1) : undefined;
    // Beside the rows, as on the scroll bar, nothing is taken up.
    if (!row) return event.stopPropagation();
    dragged.current = (ticked.has(rowKey(row)) ? target(ticked, null, undefined) : null) ?? rowTarget(row);
  };
  return { setNodeRef, listeners, takeUp };
}

/** A row that is still to come. */
function EmptyRow({ index }: { index: number }) {
  return (
    <div role="row" aria-rowindex={index + 1} aria-busy="true" className="h-full border-b border-base-300 p-3">
      <div role="gridcell" className="h-3 w-1/2 rounded bg-base-300" aria-label="Loading" />
    </div>
  );
}

/** Whoever opens the desk is in its list at once, unless they are somewhere already. */
function useArriving(scroller: RefObject<HTMLDivElement | null>): void {
  useEffect(() => {
    const list = scroller.current;
    if (!list || document.activeElement !== document.body) return;
    list.toggleAttribute('data-arrived', true);
    list.focus({ preventScroll: true });
    // Nobody chose that focus: it is shown from the first key on.
    const show = () => list.removeAttribute('data-arrived');
    addEventListener('keydown', show, { once: true, capture: true });
    return () => removeEventListener('keydown', show, { capture: true });
  }, [scroller]);
}

/** The height of a row, in CSS pixels. */
function useRowHeight(): number {
  const { density, textSize } = usePreferences();
  return Math.round(heights[density] * scale[textSize]);
}

/** How many rows came in above what is in sight, which stays where it is. */
function MoreAbove({ count: n, onGo }: { count: number; onGo: () => void }) {
  return (
    <div className="pointer-events-none sticky top-1 z-10 flex h-0 justify-center overflow-visible" role="status">
      <button className="btn pointer-events-auto shadow btn-primary btn-xs" tabIndex={-1} onClick={onGo}>
        <ArrowUp size={13} aria-hidden /> {count(n)} more above
      </button>
    </div>
  );
}

/** By what the rows in the page are known: a row stays the same element wherever it stands, as long as it is there. */
function keysOf(list: TallList['rows'], rows: Rows): string[] {
  const taken = new Set<number>();
  return list.map(({ index }) => {
    const row = rows.at(index);
    const key = row && rowKey(row);
    // Pages that were asked for one after the other may both hold it for a moment.
    if (key === undefined || taken.has(key)) return `at ${index}`;
    taken.add(key);
    return String(key);
  });
}

/** The rows of a view: only those in sight are in the page. */
export function RowList(props: RowListProps) {
  const { view, grouping, name, setup, open, openConversation, handle } = props;
  const scroller = useRef<HTMLDivElement>(null);
  const of = JSON.stringify([view, grouping]);
  const rows = useHeldRows(props.rows, of, scroller);
  const now = useNow();
  const total = rows.total ?? 0;
  const height = useRowHeight();
  const list = useTallList(scroller, total, height);
  const first = list.rows[0]?.index ?? 0;
  const last = list.rows.at(-1)?.index ?? 0;
  const { show } = props.rows;
  useEffect(() => show(first, last), [show, first, last]);

  const top = Math.min(Math.max(0, Math.floor(list.scrolled / height + 0.5)), Math.max(0, total - 1));
  useEffect(() => useSight.setState({ first: top }), [top]);

  useArriving(scroller);

  const { reveal, stand, movedByHand } = list;
  const focus = useCallback(() => scroller.current?.focus(), []);
  useImperativeHandle(handle, () => ({ focus, reveal, stand, movedByHand }), [focus, reveal, stand, movedByHand]);

  const anyTicked = useDesk((s) => s.ticked.size > 0);
  const { above, toTop } = useStanding(list, {
    rows,
    height,
    name: of,
    held: open !== null || anyTicked,
  });
  const { onPress, onTick, ticking } = useTicking({ ...props, rows });

  const { setNodeRef, listeners, takeUp } = useTakingUp(rows);
  const keys = keysOf(list.rows, rows);

  return (
    <div
      ref={(element) => {
        scroller.current = element;
        setNodeRef(element);
      }}
      {...listeners}
      onMouseDownCapture={takeUp}
      role="grid"
      tabIndex={0}
      aria-label={name}
      aria-rowcount={total}
      aria-busy={rows.total === null}
      aria-multiselectable="true"
      aria-activedescendant={open !== null ? `row-${open}` : undefined}
      data-rows
      className="min-h-0 flex-1 overflow-x-hidden overflow-y-auto [overflow-anchor:none]"
    >
      {above > 0 && <MoreAbove count={above} onGo={toTop} />}
      <div role="rowgroup" style={{ height: list.height, position: 'relative' }}>
        {list.rows.map(({ index, start }, n) => {
          const row = rows.at(index);
          const isOpen =
            row !== undefined &&
            (row.id === open ||
              (grouping.grouped && openConversation !== null && row.conversation === openConversation));
          return (
            <div
              key={keys[n]}
              role="presentation"
              style={{
                position: 'absolute',
                top: 0,
                left: 0,
                right: 0,
                height,
                transform: `translateY(${start + list.shift}px)`,
              }}
            >
              {row ? (
                <RowItem
                  row={row}
                  index={index}
                  view={view}
                  setup={setup}
                  now={now}
                  open={isOpen}
                  ticked={ticking(row)}
                  related={!grouping.grouped && !isOpen && row.conversation === openConversation}
                  onPress={onPress}
                  onTick={onTick}
                />
              ) : (
                <EmptyRow index={index} />
              )}
            </div>
          );
        })}
      </div>
    </div>
  );
}
