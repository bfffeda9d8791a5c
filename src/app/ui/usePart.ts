// A part of the page that comes after the first rows.
import { useEffect, useState } from 'react';

/**
 * Loads a part once `when` holds; null until it is here. Unlike React's own lazy, a part that is here already is shown
 * at once: nothing waits behind a fallback.
 */
export function usePart<T>(load: () => Promise<T>, when: boolean): T | null {
  const [part, setPart] = useState<T | null>(null);
  useEffect(() => {
    if (!when || part) return;
    let current = true;
    void load().then((loaded) => current && setPart(loaded));
    return () => {
      current = false;
    };
  }, [load, when, part]);
  return part;
}
