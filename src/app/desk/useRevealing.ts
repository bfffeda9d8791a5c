// Brings the row of the message that was opened into sight.
import { useEffect, useLayoutEffect, useRef, type RefObject } from 'react';
import type { RowListHandle } from './RowList';
import type { DeskView } from './useDeskView';

/**
 * Brings the row into sight once: whoever scrolls on before it is known where that stands, or later, is not called back,
 * neither by the answer nor by mail that comes in.
 */
export function useRevealing(list: RefObject<RowListHandle | null>, desk: DeskView): void {
  const { where, view, grouping, openIndex } = desk;
  const opened = JSON.stringify([where.message, view, grouping]);
  const here = desk.rows.total !== null;
  const sought = useRef<string | null>(null);
  useLayoutEffect(() => {
    sought.current = opened;
    list.current?.stand();
  }, [list, opened]);
  useEffect(() => {
    if (!here || openIndex === null || openIndex < 0 || sought.current !== opened) return;
    sought.current = null;
    if (!list.current?.movedByHand()) list.current?.reveal(openIndex);
  }, [list, opened, here, openIndex]);
}
