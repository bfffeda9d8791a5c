// Rows stay as they are under a hand: while one is pressed, swiped or dragged, or the pointer rests on the acts that stand on
// one, what comes and goes meanwhile waits.
import { useEffect, useLayoutEffect, useRef, useState, type RefObject } from 'react';
import { onceLetGo } from '../ui/press';
import type { Rows } from './useRows';

/** So long a pointer that only rests on a row's acts holds the rows, in milliseconds: whoever went away sees what comes. */
const longest = 5_000;

/** Marks what holds the rows as soon as the pointer is on it. */
export const holdsRows = { 'data-holds': '' } as const;

const isIn = (target: EventTarget | null, what: string): boolean =>
  target instanceof Element && target.closest(what) !== null;

/** The rows to be shown of a list; `name`: what it is of. */
export function useHeldRows(rows: Rows, name: string, scroller: RefObject<HTMLElement | null>): Rows {
  const [held, setHeld] = useState<{ rows: Rows; name: string } | null>(null);
  const latest = useRef({ rows, name });
  useLayoutEffect(() => {
    latest.current = held?.name === name ? { rows: held.rows, name } : { rows, name };
  });
  useEffect(() => {
    const list = scroller.current;
    if (!list) return;
    let pressing = false;
    let callOff = () => {};
    let resting: ReturnType<typeof setTimeout> | undefined;
    const hold = () => setHeld(latest.current);
    const letGo = () => {
      clearTimeout(resting);
      pressing = false;
      setHeld(null);
    };
    const down = ({ target, button }: PointerEvent) => {
      // Beside the rows, as on the scroll bar, nothing is held; and the browser's own menu takes the end of a press.
      if (button !== 0 || !isIn(target, '[aria-rowindex]')) return;
      callOff();
      clearTimeout(resting);
      pressing = true;
      hold();
      callOff = onceLetGo(letGo);
    };
    const over = ({ target }: Event) => {
      if (pressing || !isIn(target, '[data-holds]')) return;
      clearTimeout(resting);
      hold();
      resting = setTimeout(letGo, longest);
    };
    const out = ({ target, relatedTarget }: PointerEvent) => {
      if (!pressing && isIn(target, '[data-holds]') && !isIn(relatedTarget, '[data-holds]')) letGo();
    };
    list.addEventListener('pointerdown', down, { capture: true });
    list.addEventListener('pointerover', over);
    list.addEventListener('pointerout', out);
    return () => {
      callOff();
      clearTimeout(resting);
      list.removeEventListener('pointerdown', down, { capture: true });
      list.removeEventListener('pointerover', over);
      list.removeEventListener('pointerout', out);
    };
  }, [scroller]);
  return held?.name === name ? held.rows : rows;
}
