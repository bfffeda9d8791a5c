// What fingers do on a row of a touch screen: a swipe to the left or right does an act that the person chose, a long press
// ticks it. Either goes to what the row stood for when the finger came down.
import { useEffect, useRef, useState, type CSSProperties, type MouseEvent, type PointerEvent } from 'react';
import type { View } from '../../mailroom/border/views';
import { act } from '../state/desk';
import { usePreferences } from '../state/preferences';
import { actOf, type DeskAct, type Target } from './deskActs';

/** How far a finger must go, in CSS pixels: before it is a swipe, and before it counts. */
const begins = 12;
const counts = 90;
/** How long a finger must rest, in milliseconds. */
const long = 500;

export interface Swipe {
  handlers: Record<'onPointerDown' | 'onPointerMove' | 'onPointerUp' | 'onPointerCancel', (e: PointerEvent) => void> & {
    onContextMenu: (e: MouseEvent) => void;
    onClickCapture: (e: MouseEvent) => void;
  };
  style: CSSProperties;
  /** What letting go now would do. */
  word: string | undefined;
}

/** `onLong`: what a long press does. */
export function useSwipe(view: View, target: Target, onLong: () => void): Swipe {
  const { swipeLeft, swipeRight } = usePreferences();
  const start = useRef<{ x: number; y: number; target: Target; onLong: () => void } | null>(null);
  const [by, setBy] = useState(0);
  const chosen: DeskAct | undefined = by === 0 ? undefined : actOf(by < 0 ? swipeLeft : swipeRight, view);
  // While a finger rests; and whether it rested long enough, so that letting go is no press.
  const resting = useRef<ReturnType<typeof setTimeout> | null>(null);
  const rested = useRef(false);
  const lift = () => {
    if (resting.current !== null) clearTimeout(resting.current);
    resting.current = null;
  };
  useEffect(() => lift, []);
  const end = () => {
    lift();
    start.current = null;
    setBy(0);
  };
  return {
    handlers: {
      onPointerDown: (event) => {
        rested.current = false;
        if (event.pointerType !== 'touch') return;
        start.current = { x: event.clientX, y: event.clientY, target, onLong };
        lift();
        resting.current = setTimeout(() => {
          rested.current = true;
          const { current: begun } = start;
          end();
          begun?.onLong();
        }, long);
      },
      onPointerMove: (event) => {
        if (!start.current) return;
        const [x, y] = [event.clientX - start.current.x, event.clientY - start.current.y];
        if (by === 0 && Math.abs(y) > begins) return end();
        if (Math.abs(x) < begins) return;
        lift();
        // From here on the finger is followed, also beyond the row.
        if (by === 0) event.currentTarget.setPointerCapture(event.pointerId);
        setBy(x);
      },
      onPointerUp: () => {
        const begun = start.current;
        end();
        if (begun && chosen && Math.abs(by) >= counts) void act(begun.target.selection, chosen.act);
      },
      onPointerCancel: end,
      // The browser's own menu of a long press would cover what was ticked.
      onContextMenu: (event) => {
        if (start.current || rested.current) event.preventDefault();
      },
      onClickCapture: (event) => {
        if (rested.current) event.stopPropagation();
        rested.current = false;
      },
    },
    style: {
      touchAction: 'pan-y',
      ...(chosen ? { transform: `translateX(${Math.max(-160, Math.min(160, by))}px)` } : {}),
    },
    word: chosen && Math.abs(by) >= counts ? chosen.word : undefined,
  };
}
