// Swiping a row to the left or right on a touch screen does an act that the person chose.
import { useRef, useState, type CSSProperties, type PointerEvent } from 'react';
import type { View } from '../../mailroom/border/views';
import { act } from '../state/desk';
import { usePreferences } from '../state/preferences';
import { actOf, type DeskAct, type Target } from './deskActs';

/** How far a finger must go, in CSS pixels: before it is a swipe, and before it counts. */
const begins = 12;
const counts = 90;

export interface Swipe {
  handlers: Record<'onPointerDown' | 'onPointerMove' | 'onPointerUp' | 'onPointerCancel', (e: PointerEvent) => void>;
  style: CSSProperties;
  /** What letting go now would do. */
  word: string | undefined;
}

export function useSwipe(view: View, target: Target): Swipe {
  const { swipeLeft, swipeRight } = usePreferences();
  const start = useRef<{ x: number; y: number } | null>(null);
  const [by, setBy] = useState(0);
  const chosen: DeskAct | undefined = by === 0 ? undefined : actOf(by < 0 ? swipeLeft : swipeRight, view);
  const end = () => {
    start.current = null;
    setBy(0);
  };
  return {
    handlers: {
      onPointerDown: (event) => {
        if (event.pointerType === 'touch') start.current = { x: event.clientX, y: event.clientY };
      },
      onPointerMove: (event) => {
        if (!start.current) return;
        const [x, y] = [event.clientX - start.current.x, event.clientY - start.current.y];
        if (by === 0 && Math.abs(y) > begins) return end();
        if (Math.abs(x) < begins) return;
        // From here on the finger is followed, also beyond the row.
        if (by === 0) event.currentTarget.setPointerCapture(event.pointerId);
        setBy(x);
      },
      onPointerUp: () => {
        if (chosen && Math.abs(by) >= counts) void act(target.selection, chosen.act);
        end();
      },
      onPointerCancel: end,
    },
    style: {
      touchAction: 'pan-y',
      ...(chosen ? { transform: `translateX(${Math.max(-160, Math.min(160, by))}px)` } : {}),
    },
    word: chosen && Math.abs(by) >= counts ? chosen.word : undefined,
  };
}
