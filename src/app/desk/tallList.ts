// Lists that are taller than any element can be: half a million rows at a large text size, or a million. Such a list is as
// tall as an element can be, and each pixel that it is scrolled by stands for a little more than one.
import { observeElementOffset, useVirtualizer, type Virtualizer } from '@tanstack/react-virtual';
import { useCallback, useEffect, useLayoutEffect, useRef, useState, type RefObject } from 'react';

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

/** How many pixels of a list one pixel of its scroller stands for; `most`: how tall the scroller's content can be. */
export const scaleOf = (total: number, inSight: number, most: number): number =>
  total <= most ? 1 : (total - inSight) / (most - inSight);

/** The rows of a list that are in the page, each of the same height. */
export interface TallList {
  virtual: Virtualizer<HTMLDivElement, Element>;
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

/** `count` rows of `each` CSS pixels. */
export function useTallList(scroller: RefObject<HTMLDivElement | null>, count: number, each: number): TallList {
  const total = count * each;
  // Read when the scroller moves, which may be before the list is drawn anew.
  const scale = useRef(1);
  const virtual = useVirtualizer<HTMLDivElement, Element>({
    count,
    getScrollElement: () => scroller.current,
    estimateSize: () => each,
    overscan: 5,
    observeElementOffset: (instance, tell) =>
      observeElementOffset(instance, (offset, moving) => tell(offset * scale.current, moving)),
    scrollToFn: (offset) => scroller.current?.scrollTo({ top: offset / scale.current }),
  });
  useEffect(() => virtual.measure(), [virtual, each]);
  const inSight = virtual.scrollRect?.height ?? 0;
  // After the first rows are painted: to look has the page laid out.
  const [most, setMost] = useState(tallest ?? Infinity);
  useEffect(() => {
    tallest ??= measured();
    if (total > tallest) setMost(tallest);
  }, [total]);
  const now = scaleOf(total, inSight, most);
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
  const scrolled = virtual.scrollOffset ?? 0;
  return {
    virtual,
    height: Math.min(total, most),
    shift: scrolled / now - scrolled,
    offset,
    scrollTo,
    reveal,
    stand,
    movedByHand,
  };
}
