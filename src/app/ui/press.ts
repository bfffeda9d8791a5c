// A press of the mouse or a finger, from where it begins to where it ends: what it goes to is what was under it as it began.
import { useCallback, useEffect, useLayoutEffect, useRef } from 'react';

/** So long after letting go the click of a finger may still come, in milliseconds. */
const clickAfter = 350;

/** Calls back once the press under way is over, the click that ends it included; what is returned calls it off. */
export function onceLetGo(then: () => void): () => void {
  let timer: ReturnType<typeof setTimeout> | undefined;
  const off = new AbortController();
  const over = () => {
    off.abort();
    clearTimeout(timer);
    then();
  };
  const on = { capture: true, signal: off.signal } as const;
  addEventListener('pointerup', () => (timer = setTimeout(over, clickAfter)), on);
  // Behind all that hear of it.
  addEventListener('click', () => (timer = setTimeout(over)), on);
  addEventListener('pointercancel', over, on);
  // It may end where this page does not hear of it.
  addEventListener('blur', over, { signal: off.signal });
  return () => {
    off.abort();
    clearTimeout(timer);
  };
}

/** Tells a value as it is; while a press lasts, wherever on the page, as it was when that began. */
export function useAtPress<T>(value: T): () => T {
  const latest = useRef(value);
  const begun = useRef<{ value: T } | null>(null);
  useLayoutEffect(() => {
    latest.current = value;
  });
  useEffect(() => {
    let callOff = () => {};
    const end = () => {
      callOff();
      begun.current = null;
    };
    const begin = () => {
      callOff();
      begun.current = { value: latest.current };
      callOff = onceLetGo(() => (begun.current = null));
    };
    addEventListener('pointerdown', begin, { capture: true });
    // Whoever goes on by keys while a finger rests means what is there now.
    addEventListener('keydown', end, { capture: true });
    return () => {
      end();
      removeEventListener('pointerdown', begin, { capture: true });
      removeEventListener('keydown', end, { capture: true });
    };
  }, []);
  return useCallback(() => (begun.current ? begun.current.value : latest.current), []);
}
