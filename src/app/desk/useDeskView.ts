// The desk's view: what the address says, the rows there, and going from one message to the next.
import { useCallback, useEffect, useMemo, useRef } from 'react';
import { useLocation, useNavigate } from 'react-router';
import type { View } from '../../mailroom/api';
import { mailroom } from '../../mailroom/client';
import { readPath, viewPath } from '../paths';
import { clearTicks } from '../state/desk';
import { useMailbox } from '../state/mailbox';
import { useAnswer } from '../ui/useAnswer';
import { useRows, type Rows } from './useRows';

export interface DeskView {
  view: View;
  /** False where the address is no view's. */
  known: boolean;
  /** The id of the open message, or null. */
  open: number | null;
  /** Where the open message stands in the view, -1 where it does not, null while that is not known. */
  openIndex: number | null;
  rows: Rows;
  go: (id: number | null) => void;
  /** Opens the message `by` rows further, as far as there are any. */
  step: (by: number) => void;
  /** Opens the message after the open one, else the one before, passing over those that are about to leave. */
  goOn: (leaving: ReadonlySet<number>) => void;
}

/** A new message is open at once, not when the page has time: the next key is meant for it. */
const atOnce = { flushSync: true } as const;

export function useDeskView(): DeskView {
  const { pathname } = useLocation();
  const navigate = useNavigate();
  const revision = useMailbox((s) => s.revision);
  const here = useMemo(() => readPath(pathname), [pathname]);
  const key = here ? viewPath(here.view) : '';
  const view = useMemo<View>(() => readPath(key)?.view ?? { kind: 'place', place: 'inbox' }, [key]);
  const open = here?.message ?? null;
  const rows = useRows(view);
  const { value } = useAnswer(
    async () => ({ id: open, index: open === null ? -1 : await mailroom.position(view, open) }),
    `${key} ${open} ${revision}`,
  );
  // The answer for the message before says nothing of this one.
  const openIndex = value?.id === open ? value.index : null;
  // Where the person is in the list. It runs ahead of the address, so that keys pressed quickly are all counted; and
  // it stays where a message stood that has left the view.
  const spot = useRef(-1);
  const asked = useRef(0);
  useEffect(() => {
    if (open === null) spot.current = -1;
    else if (openIndex !== null && openIndex >= 0) spot.current = openIndex;
  }, [open, openIndex]);
  useEffect(() => clearTicks(), [key]);

  const go = useCallback((id: number | null) => void navigate(viewPath(view, id), atOnce), [navigate, view]);
  const openAt = useCallback(
    async (index: number) => {
      spot.current = Math.max(0, index);
      const call = ++asked.current;
      let [row] = (await mailroom.rows(view, spot.current, spot.current + 1)).rows;
      if (!row) {
        const { total } = await mailroom.rows(view, 0, 0);
        [row] = (await mailroom.rows(view, total - 1, total)).rows;
      }
      // Stepping through a list is one visit: Back leads to where one came from, not through every message.
      if (call === asked.current) void navigate(viewPath(view, row?.id ?? null), { replace: true, ...atOnce });
    },
    [navigate, view],
  );
  const step = useCallback(
    (by: number) => {
      if (!rows.total) return;
      // A message that has left the view leaves its spot: the next one stands there already.
      const left = open !== null && openIndex === -1 && spot.current >= 0 && by > 0 ? 1 : 0;
      void openAt(Math.max(0, Math.min(spot.current + by - left, rows.total - 1)));
    },
    [open, openAt, openIndex, rows.total],
  );
  const { at, total } = rows;
  const goOn = useCallback(
    (leaving: ReadonlySet<number>) => {
      const here = Math.max(0, spot.current);
      const staying = (index: number) => {
        const row = at(index);
        return row && !leaving.has(row.id) ? row.id : null;
      };
      let next: number | null = null;
      for (let i = here; i < (total ?? 0) && next === null && at(i); i++) next = staying(i);
      for (let i = here - 1; i >= 0 && next === null && at(i); i--) next = staying(i);
      void navigate(viewPath(view, next), { replace: true, ...atOnce });
    },
    [at, navigate, total, view],
  );
  return { view, known: here !== null, open, openIndex, rows, go, step, goOn };
}
