// Which messages' texts are on the screen: only those are marked as read by being open.
import { useEffect, useRef, type RefObject } from 'react';
import { create } from 'zustand';

/** The messages whose text, or some of it, is on the screen. */
const useSeen = create<{ ids: ReadonlySet<number> }>(() => ({ ids: new Set() }));

function note(id: number, seen: boolean): void {
  useSeen.setState(({ ids }) => {
    if (ids.has(id) === seen) return { ids };
    const next = new Set(ids);
    if (seen) next.add(id);
    else next.delete(id);
    return { ids: next };
  });
}

/** Notes whether the text of a message is on the screen; for the element that holds it, once it is there. */
export function useSeeing(id: number): RefObject<HTMLDivElement | null> {
  const element = useRef<HTMLDivElement>(null);
  useEffect(() => {
    const { current } = element;
    if (!current) return;
    const observer = new IntersectionObserver((entries) => note(id, entries.at(-1)?.isIntersecting === true));
    observer.observe(current);
    return () => {
      observer.disconnect();
      note(id, false);
    };
  }, [id]);
  return element;
}

/** Whether the text of a message is on the screen. */
export const useIsSeen = (id: number): boolean => useSeen(({ ids }) => ids.has(id));
