// Lists of which only the rows in sight are in the page, each of the same height: where they stand is reckoned, not looked up
// row by row, which takes a second at half a million. Such a list may be taller than any element can be, at a large text
// size or with a million rows: then it is as tall as an element can be, and each pixel that it is scrolled by stands for a
// little more than one.
import { useCallback, useLayoutEffect, useRef, useState, useSyncExternalStore, type RefObject } from 'react';
import { flushSync } from 'react-dom';

/** Where a browser does not say how tall an element can be: less than any allows, in CSS pixels. */
const surely = 15_000_000;
/** How tall an element can be, once it was looked: until then any height is taken for possible. */
let tallest: number | null = null;

/** Looks how tall an element can be here, in CSS pixels: Chromium makes none beyond some 33 million, Firefox 17. */
function measured(): number {
  const probe = document.createElement('div');
  Object.assign(probe.style, { position: 'absolute', visibility: 'hidden', height: '1000000000px' });
  document.body.append(probe);
  const height = probe.getBoundingClientRect().height;
  probe.remove();
  // With some room, since not all of it is counted alike.
  return height > 1_000 && height < 1e9 ? Math.floor(height * 0.98) : surely;
}

/** Looks once the first rows are painted: to look has the page laid out. React then asks again what it came to. */
function afterRows(): () => void {
  tallest ??= measured();
  return () => undefined;
}

/** How many pixels of a list one pixel of its scroller stands for; `most`: how tall the scroller's content can be. */
export const scaleOf = (total: number, inSight: number, most: number): number =>
  total <= most ? 1 : (total - inSight) / (most - inSight);

/** Rows beyond those in sight that are in the page, above and below. */
const beyond = 5;

/** The first and the last row that are in the page: of `count`, each so tall, `offset` pixels down, `room` in sight. */
export function inPage(count: number, each: number, offset: number, room: number): [first: number, last: number] {
  const first = Math.floor(offset / each) - beyond;
  const last = Math.ceil((offset + room) / each) - 1 + beyond;
  return [Math.max(0, Math.min(first, count - 1)), Math.min(last, count - 1)];
}

/** A scroller: its element once it is there, how far the list in it is scrolled and how much of it is in sight, in pixels. */
interface Scroller {
  element: HTMLDivElement | null;
  offset: number;
  room: number;
}

/** The rows of a list that are in the page, each of the same height. */
export interface TallList extends Pick<Scroller, 'element'> {
  /** The rows that are in the page, and where each stands in the list. */
  rows: { index: number; start: number }[];
  /** How far the list was scrolled when it was drawn last, to half a row. */
  scrolled: number;
  /** How tall the scroller's content is, in CSS pixels. */
  height: number;
  /** How far a row is moved from where it stands in the list to where it stands in the scroller’s content. */
  shift: number;
  /** How far the list is scrolled: what stands at its top. */
  offset: () => number;
  scrollTo: (offset: number) => void;
  /** Brings a row into sight; `top`: as the first one. */
  reveal: (index: number, top?: boolean) => void;
  /** Remembers where the list stands; `movedByHand`: whether anybody else has scrolled it since. */
  stand: () => void;
  movedByHand: () => boolean;
}

/** Where a scroller stands: drawn anew whenever another half of a row, of `each` pixels, stands at its top. */
function useScroller(scroller: RefObject<HTMLDivElement | null>, scale: RefObject<number>, each: number): Scroller {
  const [stands, setStands] = useState<Scroller>({ element: null, offset: 0, room: window.innerHeight });
  useLayoutEffect(() => {
    const element = scroller.current;
    if (!element) return;
    const look = () => {
      const [offset, room] = [element.scrollTop * scale.current, element.clientHeight];
      setStands((was) => {
        const half = (pixels: number) => Math.floor((2 * pixels) / each);
        // Where a pixel stands for more than one, each moves the rows.
        const moved = scale.current > 1 ? offset !== was.offset : half(offset) !== half(was.offset);
        return was.element === element && was.room === room && !moved ? was : { element, offset, room };
      });
    };
    // At once: what is drawn later is missing in the frame that is scrolled.
    const scrolled = () => flushSync(look);
    element.addEventListener('scroll', scrolled, { passive: true });
    // Looks for the first time once the frame is laid out: to look now would have it laid out twice.
    const resized = new ResizeObserver(look);
    resized.observe(element);
    return () => {
      element.removeEventListener('scroll', scrolled);
      resized.disconnect();
    };
  }, [scroller, scale, each]);
  return stands;
}

/** `count` rows of `each` CSS pixels. */
export function useTallList(scroller: RefObject<HTMLDivElement | null>, count: number, each: number): TallList {
  const total = count * each;
  // Read when the scroller moves, which may be before the list is drawn anew.
  const scale = useRef(1);
  const { element, offset: scrolled, room } = useScroller(scroller, scale, each);
  const most = useSyncExternalStore(afterRows, () => (tallest !== null && total > tallest ? tallest : Infinity));
  const now = scaleOf(total, room, most);
  // Before whoever draws the list moves it.
  useLayoutEffect(() => {
    scale.current = now;
  }, [now]);
  const offset = useCallback(() => (scroller.current?.scrollTop ?? 0) * scale.current, [scroller]);
  const stood = useRef(0);
  const stand = useCallback(() => void (stood.current = scroller.current?.scrollTop ?? 0), [scroller]);
  const movedByHand = useCallback(() => (scroller.current?.scrollTop ?? 0) !== stood.current, [scroller]);
  const scrollTo = useCallback(
    (to: number) => {
      const end = Math.max(0, total - (scroller.current?.clientHeight ?? 0));
      const byHand = movedByHand();
      scroller.current?.scrollTo({ top: Math.max(0, Math.min(to, end)) / scale.current });
      if (!byHand) stand();
    },
    [scroller, total, movedByHand, stand],
  );
  const reveal = useCallback(
    (index: number, top = false) => {
      const [from, room] = [index * each, scroller.current?.clientHeight ?? 0];
      if (top || from < offset()) scrollTo(from);
      else if (from + each > offset() + room) scrollTo(from + each - room);
    },
    [scroller, each, offset, scrollTo],
  );
  const [first, last] = inPage(count, each, scrolled, room);
  const rows = Array.from({ length: Math.max(0, last - first + 1) }, (_, n) => ({
    index: first + n,
    start: (first + n) * each,
  }));
  return {
    element,
    rows,
    scrolled,
    height: Math.min(total, most),
    shift: scrolled / now - scrolled,
    offset,
    scrollTo,
    reveal,
    stand,
    movedByHand,
  };
}
