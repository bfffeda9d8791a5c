// The moment that a screen goes by: “14:05” becomes “Tue” at midnight, also on a page that stays open.
import { useEffect, useState } from 'react';

/** The time, milliseconds since 1970, told anew every so many milliseconds. */
export function useNow(every = 60_000): number {
  const [now, setNow] = useState(() => Date.now());
  useEffect(() => {
    const timer = setInterval(() => setNow(Date.now()), every);
    return () => clearInterval(timer);
  }, [every]);
  return now;
}
