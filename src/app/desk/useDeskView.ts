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
  /** Where the open message stands in the view, -1 where it does not. */
  openIndex: number;
  rows: Rows;
  go: (id: number | null) => void;
  /** Opens the message `by` rows further, as far as there are any. */
  step: (by: number) => void;
  /** Opens what now stands where the open message stood: it has left the view. */
  goOn: () => Promise<void>;
}

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
    () => (open === null ? Promise.resolve(-1) : mailroom.position(view, open)),
    `${key} ${open} ${revision}`,
  );
  const openIndex = value ?? -1;
  const stood = useRef(0);
  useEffect(() => {
    if (openIndex >= 0) stood.current = openIndex;
  }, [openIndex]);
  useEffect(() => clearTicks(), [key]);

  const go = useCallback((id: number | null) => void navigate(viewPath(view, id)), [navigate, view]);
  const openAt = useCallback(
    async (index: number) => {
      const window = await mailroom.rows(view, index, index + 1);
      const at =
        window.rows[0] ?? (window.total ? (await mailroom.rows(view, window.total - 1, window.total)).rows[0] : null);
      // Stepping through a list is one visit: Back leads to where one came from, not through every message.
      void navigate(viewPath(view, at?.id ?? null), { replace: true });
    },
    [navigate, view],
  );
  const step = useCallback(
    (by: number) => {
      // A message that has left the view leaves its spot: the next one stands there now.
      const from = openIndex >= 0 ? openIndex : open !== null && by > 0 ? stood.current - 1 : by > 0 ? -1 : 0;
      const index = Math.max(0, Math.min(from + by, (rows.total ?? 0) - 1));
      if (rows.total) void openAt(index);
    },
    [open, openAt, openIndex, rows.total],
  );
  const goOn = useCallback(() => openAt(stood.current), [openAt]);
  return { view, known: here !== null, open, openIndex, rows, go, step, goOn };
}
