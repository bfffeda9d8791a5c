// Keys. What each does stands on the sheet of keys (keys/KeySheet.tsx) and beside its act.
import { useEffect, useLayoutEffect, useRef } from 'react';
import { isOfPage } from './layers';

/** A key by its name, in lower case, `ctrl+` before it for Ctrl or Cmd, `shift+` for a letter or an arrow with Shift; what it does. */
export type KeyMap = Record<string, () => void>;

const typing = (target: EventTarget | null): boolean =>
  target instanceof HTMLElement &&
  (target.isContentEditable || /^(INPUT|TEXTAREA|SELECT)$/.test(target.tagName)) &&
  !(target instanceof HTMLInputElement && target.type === 'checkbox');

/** The keys that are listened to now, by each who listens. */
const listening = new Set<{ current: KeyMap }>();

/** What a key does now; undefined where it does nothing here. The last that listens has it. */
export function keyNow(key: string): (() => void) | undefined {
  return [...listening].findLast((map) => key in map.current)?.current[key];
}

/** What goes on for as long as a key is held down; whatever else a key does, it does once. */
const goesOn = /^((ctrl|shift)\+)?arrow(up|down|left|right)$/;

/** Listens for keys while no field is being typed in and nothing lies over the page (layers.ts). */
export function useKeys(keys: KeyMap): void {
  const map = useRef(keys);
  // Before the next key can come, not after the next paint: a key must find what is on the screen.
  useLayoutEffect(() => {
    map.current = keys;
  });
  useEffect(() => {
    const listen = (event: KeyboardEvent) => {
      if (event.defaultPrevented || event.altKey || typing(event.target) || !isOfPage(event)) return;
      // With Shift a letter or an arrow is another key; signs that need Shift, such as “?”, are themselves.
      const shift = event.shiftKey && /^([a-z]|arrow\w+)$/i.test(event.key) ? 'shift+' : '';
      const name = (event.ctrlKey || event.metaKey ? 'ctrl+' : '') + shift + event.key.toLowerCase();
      // Enter and blank on a button or link are its own.
      if (
        (name === 'enter' || name === ' ') &&
        event.target instanceof HTMLElement &&
        /^(BUTTON|A)$/.test(event.target.tagName)
      )
        return;
      const act = map.current[name];
      if (!act) return;
      event.preventDefault();
      if (!event.repeat || goesOn.test(name)) act();
    };
    window.addEventListener('keydown', listen);
    listening.add(map);
    return () => {
      window.removeEventListener('keydown', listen);
      listening.delete(map);
    };
  }, []);
}
