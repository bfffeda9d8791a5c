import { useEffect } from 'react';

/** The title of the browser's tab: where one is, and what there is to do. */
export function useTitle(words: string): void {
  useEffect(() => {
    document.title = `${words} – Wide Sort`;
  }, [words]);
}
