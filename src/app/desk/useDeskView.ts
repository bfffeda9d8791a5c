// The desk's view: what the address says, the rows there, and going from one message to the next.
import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { useLocation, useNavigate } from 'react-router';
import { lanesOf, type Lane as SavedLane } from '../../core/search/lane';
import type { Row } from '../../mailroom/border/rows';
import type { Filter, Grouping, Lane, View } from '../../mailroom/border/views';
import { mailroom } from '../../mailroom/client';
import { readWhere, viewPath, wherePath, type Where } from '../paths';
import { clearTicks, untickGone, useDesk } from '../state/desk';
import { useMailbox } from '../state/overview';
import { isGrouped, usePreferences } from '../state/preferences';
import { useAnswer } from '../ui/useAnswer';
import { useRows, type Rows } from './useRows';

/** A lane of the view, ready to be shown. */
export interface ShownLane {
  id: string;
  name: string;
  view: View;
}

/** A step through a list. */
export interface Step {
  /** The row to which it goes. */
  index: number;
  /** The message from which it goes: the open one, or what the step before is still about to open. */
  from: number | null | Promise<number | null>;
  /** What it opens. */
  opens: Promise<number | null>;
}

export interface DeskView {
  where: Where;
  /** False where the address is no view's. */
  known: boolean;
  /** The view with all that narrows it; in lanes, that of the lane in which the person is. */
  view: View;
  /** The whole view, with all that narrows it but the lane. */
  whole: View;
  grouping: Grouping;
  lanes: ShownLane[];
  /** Where the open message stands in the view, -1 where it does not, null while that is not known. */
  openIndex: number | null;
  rows: Rows;
  /** How much the whole view holds, in lanes too; null until the first answer. */
  totals: ({ rows: number } & Pick<Rows, 'trays' | 'messages' | 'unread' | 'looked'>) | null;
  /** Goes elsewhere on the desk: what is not given stays as it is. */
  go: (to: Partial<Where>) => void;
  /** Opens a row where it stands: the next key counts from there, however soon it comes. */
  openRow: (id: number, index: number) => void;
  /** Applies the filter again: what no longer fits leaves. */
  applyAgain: () => void;
  /** Opens the message `by` rows further, as far as there are any. */
  step: (by: number) => Step | null;
  /**
   * Opens what comes after the open message as the person chose, passing over rows that are about to leave. Where its row
   * stays, being a conversation of which only the messages `ids` leave, the next of that conversation is opened.
   */
  goOn: (leaving: (row: Row) => boolean, ids: ReadonlySet<number>) => void;
  /** Whether the open message came under the hands by itself a moment ago, after an act on the one before it. */
  justCame: () => boolean;
  /** Says that messages have left, or are about to: rows asked for before `settled()` are not believed about them. */
  leave: (leaving: (row: Row) => boolean) => { settled: () => void };
}

/** So long a message that was not chosen has just come, in milliseconds: a press meant for the one before may follow. */
const takesIn = 1_500;

/** A new message is open at once, not when the page has time: the next key is meant for it. */
const atOnce = { flushSync: true } as const;

const inbox: Where = {
  view: { kind: 'place', place: 'inbox' },
  message: null,
  show: null,
  account: null,
  lanes: false,
};

function shownLanes(saved: readonly SavedLane[], whole: View): ShownLane[] {
  const own = lanesOf(saved, viewPath(whole));
  const of = (lane: Lane): View => ({ ...whole, lane });
  return [
    ...own.map(({ id, name, what }) => ({ id, name, view: of(what) })),
    // Whatever is in no lane is still in sight.
    { id: 'rest', name: 'The rest', view: of({ by: 'rest', lanes: own.map((lane) => lane.what) }) },
  ];
}

/** The message of a conversation, oldest first, that comes after one of them, or before it, and does not leave. */
function neighbour(members: readonly number[], one: number, leaving: ReadonlySet<number>): number | null {
  const at = members.indexOf(one);
  const stays = (id: number) => !leaving.has(id);
  return members.slice(at + 1).find(stays) ?? members.slice(0, Math.max(0, at)).findLast(stays) ?? null;
}

/** Where the row stands that comes after a position, or else before it, and stays; `onward`: in that order. */
function nearest(
  { at, askedAt, known }: Pick<Rows, 'at' | 'askedAt' | 'known'>,
  here: number,
  onward: boolean,
  stays: (row: Row, asked: number) => boolean,
): number | undefined {
  const all = known();
  const after = all.filter((index) => index > here);
  const before = all.filter((index) => index < here).reverse();
  return [...(onward ? after : before), here, ...(onward ? before : after)].find((index) => {
    const row = at(index);
    return row !== undefined && stays(row, askedAt(index));
  });
}

interface Stepped {
  where: Where;
  /** The address without the open message. */
  key: string;
  laneIndex: number;
  view: View;
  grouping: Grouping;
  rows: ReturnType<typeof useRows>;
  openIndex: number | null;
  go: (to: Partial<Where>) => void;
}

/** Going through a list: to the next message, past what has left, on after an act. */
function useStepping({ where, key, laneIndex, view, grouping, rows, openIndex, go }: Stepped) {
  const navigate = useNavigate();
  const { goOn: chosen } = usePreferences();
  const open = where.message;
  // Where the person is in the list. It runs ahead of the address, so that keys pressed quickly are all counted; and
  // it stays where a message stood that has left the view.
  const spot = useRef(-1);
  const asked = useRef(0);
  // Between a step and the message that it opens: where the one before stands must not pull the spot back.
  const stepping = useRef<Promise<number | null> | null>(null);
  const left = useRef<{ is: (row: Row) => boolean; settled: number }[]>([]);
  const came = useRef(-Infinity);
  useEffect(() => {
    if (stepping.current) return;
    if (open === null) spot.current = -1;
    else if (openIndex !== null && openIndex >= 0) spot.current = openIndex;
  }, [open, openIndex]);
  useEffect(() => {
    clearTicks();
    left.current = [];
  }, [key, grouping.grouped]);
  useEffect(() => {
    spot.current = -1;
  }, [laneIndex]);

  const replace = useCallback(
    (message: number | null) => void navigate(wherePath({ ...where, message }), { replace: true, ...atOnce }),
    [navigate, where],
  );
  const openAt = useCallback(
    async (index: number): Promise<number | null> => {
      spot.current = Math.max(0, index);
      came.current = -Infinity;
      const call = ++asked.current;
      const ofRow = async (index: number) => (await mailroom.rows(view, grouping, index, index + 1)).rows.at(0);
      let row: Row | undefined;
      try {
        row = await ofRow(spot.current);
        row ??= await ofRow((await mailroom.rows(view, grouping, 0, 0)).total - 1);
      } finally {
        if (call === asked.current) stepping.current = null;
      }
      // Stepping through a list is one visit: Back leads to where one came from, not through every message.
      const id = row?.id ?? null;
      if (call === asked.current) replace(id);
      return id;
    },
    [grouping, replace, view],
  );
  const step = useCallback(
    (by: number) => {
      if (rows.total === 0) return null;
      // Not known yet, as in a lane just entered: the mailroom tells which row is the last.
      const last = rows.total === null ? Infinity : rows.total - 1;
      // A message that has left the view leaves its spot: the next one stands there already.
      const gap = open !== null && openIndex === -1 && spot.current >= 0 && by > 0 ? 1 : 0;
      const index = Math.max(0, Math.min(spot.current + by - gap, last));
      const from = stepping.current ?? open;
      const opens = openAt(index);
      stepping.current = opens;
      return { index, from, opens };
    },
    [open, openAt, openIndex, rows.total],
  );
  const { at, askedAt, known } = rows;
  const leave = useCallback((is: (row: Row) => boolean) => {
    const one = { is, settled: Infinity };
    left.current.push(one);
    return { settled: () => void (one.settled = performance.now()) };
  }, []);
  const goOn = useCallback(
    (leaving: (row: Row) => boolean, ids: ReadonlySet<number>) => {
      asked.current++;
      stepping.current = null;
      came.current = performance.now();
      if (chosen === 'list') return go({ message: null });
      const row = openIndex === null || openIndex < 0 ? undefined : at(openIndex);
      const beside = open !== null && row?.whole && !leaving(row) ? neighbour(row.whole.ids, open, ids) : null;
      if (beside !== null) return replace(beside);
      // The rows in memory may be older than what was done last: what has left since is passed over, too.
      const stays = (row: Row, asked: number) =>
        !leaving(row) && !left.current.some((l) => l.settled >= asked && l.is(row));
      const here = known().find((index) => at(index)?.id === open) ?? spot.current;
      const next = nearest({ at, askedAt, known }, here, chosen === 'next', stays);
      if (next !== undefined) spot.current = next;
      replace(next === undefined ? null : (at(next)?.id ?? null));
    },
    [at, askedAt, chosen, go, known, open, openIndex, replace],
  );
  const stand = useCallback((index: number) => {
    asked.current++;
    stepping.current = null;
    came.current = -Infinity;
    spot.current = index;
  }, []);
  const justCame = useCallback(() => performance.now() - came.current < takesIn, []);
  return { step, goOn, justCame, leave, stand };
}

export function useDeskView(): DeskView {
  const { pathname, search } = useLocation();
  const navigate = useNavigate();
  const revision = useMailbox((s) => s.revision);
  const saved = useMailbox((s) => s.overview?.setup.lanes);
  const preferences = usePreferences();
  const { elsewhere, orders } = preferences;
  const laneIndex = useDesk((s) => s.lane);
  const here = useMemo(() => readWhere(pathname, search), [pathname, search]);
  const where = here ?? inbox;
  const { message: open, show, account, lanes: wide } = where;
  const path = viewPath(where.view);
  const byConversation = isGrouped(preferences, path);
  const key = wherePath({ ...where, message: null });
  const [round, setRound] = useState(0);
  const whole = useMemo<View>(() => {
    const applied = `${round} ${key} ${crypto.randomUUID()}`;
    const read = readWhere(path)?.view ?? inbox.view;
    const base: View = read.kind === 'found' ? { ...read, applied } : read;
    const filter = show ? { by: show satisfies Filter, applied } : undefined;
    return { ...base, ...(filter ? { filter } : {}), ...(account === null ? {} : { account }) };
  }, [path, show, account, round, key]);
  const lanes = useMemo(() => (wide ? shownLanes(saved ?? [], whole) : []), [wide, saved, whole]);
  const view = lanes.length ? lanes[Math.min(laneIndex, lanes.length - 1)].view : whole;
  const grouping = useMemo<Grouping>(
    () => ({ grouped: byConversation, elsewhere, ...(orders[path] ? { order: orders[path] } : {}) }),
    [byConversation, path, elsewhere, orders],
  );
  const rows = useRows(view, grouping);
  const { value: openIndex } = useAnswer(
    () => (open === null ? Promise.resolve(-1) : mailroom.position(view, grouping, open)),
    `${JSON.stringify([view, grouping])} ${open} ${revision}`,
    0,
    String(open),
  );
  const inLanes = useAnswer(
    () => (wide ? mailroom.rows(whole, grouping, 0, 0) : Promise.resolve(null)),
    `${wide} ${JSON.stringify([whole, grouping])} ${revision}`,
    0,
    JSON.stringify([whole, grouping]),
  ).value;
  const held = wide ? inLanes : rows;
  const totals = held === null || held.total === null ? null : { ...held, rows: held.total };
  const go = useCallback(
    (to: Partial<Where>) => void navigate(wherePath({ ...where, ...to }), atOnce),
    [navigate, where],
  );
  // What left the view by another's hand is ticked no more.
  useEffect(() => untickGone(whole), [whole, revision]);
  const { step, goOn, justCame, leave, stand } = useStepping({
    where,
    key,
    laneIndex,
    view,
    grouping,
    rows,
    openIndex,
    go,
  });
  const applyAgain = useCallback(() => setRound((n) => n + 1), []);
  const openRow = useCallback(
    (id: number, index: number) => {
      stand(index);
      go({ message: id });
    },
    [go, stand],
  );
  return {
    where,
    known: here !== null,
    view,
    whole,
    grouping,
    lanes,
    openIndex,
    rows,
    totals,
    go,
    openRow,
    applyAgain,
    step,
    goOn,
    justCame,
    leave,
  };
}
