// Whether the window is narrower than a width: a telephone’s, the style sheets’ “md”, where nothing else is said.
import { useCallback, useSyncExternalStore } from 'react';

/** `width` in CSS pixels. */
export function useNarrow(width = 768): boolean {
  const query = `(max-width: ${width - 1}px)`;
  const listen = useCallback(
    (changed: () => void) => {
      const media = window.matchMedia(query);
      media.addEventListener('change', changed);
      return () => media.removeEventListener('change', changed);
    },
    [query],
  );
  return useSyncExternalStore(listen, () => window.matchMedia(query).matches);
}
