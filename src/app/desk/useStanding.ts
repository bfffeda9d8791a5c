// Keeps what is in sight of a list where it is while rows come and go above it.
import { useEffect, useLayoutEffect, useRef, useState } from 'react';
import { rowKey } from '../state/ticks';
import { shiftOf, type Standing } from './standing';
import type { TallList } from '../ui/tallList';
import type { Rows } from './useRows';

const touches = ['pointermove', 'pointerdown', 'wheel', 'keydown'] as const;

/** Where each row in memory stands. */
function placesOf(rows: Rows): Map<number, number> {
  const places = new Map<number, number>();
  for (const at of rows.known()) {
    const row = rows.at(at);
    if (row) places.set(rowKey(row), at);
  }
  return places;
}

/** The rows in sight of a list, of so many CSS pixels each. */
function inSightOf(rows: Rows, offset: number, { clientHeight }: HTMLElement, height: number): Standing[] {
  const first = Math.floor(offset / height);
  const out: Standing[] = [];
  for (let at = first; at <= first + Math.ceil(clientHeight / height); at++) {
    const row = rows.at(at);
    if (row) out.push({ key: rowKey(row), index: at });
  }
  return out;
}

interface StandingList {
  /** How many rows came in above what is in sight, since that last was the top. */
  above: number;
  toTop: () => void;
}

interface List {
  rows: Rows;
  /** What the list is of, as it has to be told apart. */
  name: string;
  /** A row's height, in CSS pixels. */
  height: number;
  /** Whether somebody is at it: a message is open, or rows are ticked. */
  held: boolean;
}

export function useStanding({ element, scrolled, offset, scrollTo }: TallList, list: List): StandingList {
  const { rows, name, height, held } = list;
  const [more, setMore] = useState({ of: name, above: 0 });
  const seen = useRef<{ name: string; at: Rows['at']; inSight: Standing[]; filling: boolean } | null>(null);
  // What of it somebody has touched. A pointer that only rests where the last page had a button touches nothing.
  const touched = useRef<string | null>(null);
  useEffect(() => {
    const touch = () => (touched.current = name);
    for (const kind of touches) element?.addEventListener(kind, touch, { passive: true });
    return () => {
      for (const kind of touches) element?.removeEventListener(kind, touch);
    };
  }, [element, name]);
  useLayoutEffect(() => {
    if (!element) return;
    const was = seen.current;
    let shift = 0;
    if (was?.name === name && was.at !== rows.at) {
      const places = placesOf(rows);
      shift = shiftOf(was.inSight, (key) => places.get(key) ?? -1);
      // While mail is brought in and nobody is at the list, the newest are shown.
      const filled = was.filling || rows.filling;
      const follows = filled && element.scrollTop === 0 && !held && touched.current !== name;
      if (follows) shift = 0;
      if (shift !== 0) scrollTo(offset() + shift * height);
    }
    const atTop = offset() < height / 2;
    setMore(({ of, above }) => {
      const sum = atTop ? 0 : (of === name ? above : 0) + Math.max(0, shift);
      return of === name && sum === above ? { of, above } : { of: name, above: sum };
    });
    seen.current = { name, at: rows.at, inSight: inSightOf(rows, offset(), element, height), filling: rows.filling };
  }, [offset, scrollTo, element, rows, name, height, scrolled, held]);
  return { above: more.of === name ? more.above : 0, toTop: () => scrollTo(0) };
}
