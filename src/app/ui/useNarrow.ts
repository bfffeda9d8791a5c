// Whether the window is as narrow as a telephone's: the same width as the style sheets' “md”.
import { useSyncExternalStore } from 'react';

const query = window.matchMedia('(max-width: 767px)');

const listen = (changed: () => void) => {
  query.addEventListener('change', changed);
  return () => query.removeEventListener('change', changed);
};

export const useNarrow = (): boolean => useSyncExternalStore(listen, () => query.matches);
