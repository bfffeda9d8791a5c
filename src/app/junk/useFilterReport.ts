// How the junk filter stands, asked anew when marks or mail changed, with progress while it is judged.
import { useEffect, useState } from 'react';
import type { FilterReport } from '../../mailroom/border/junk';
import { mailroom, onMailroom } from '../../mailroom/client';
import { useMailbox } from '../state/overview';

interface Progress {
  done: number;
  total: number;
}

/** The last report, and how far the next one is; null before the first. */
export function useFilterReport(): { report: FilterReport | null; progress: Progress | null } {
  const revision = useMailbox((s) => s.revision);
  const [report, setReport] = useState<FilterReport | null>(null);
  const [progress, setProgress] = useState<Progress | null>(null);
  useEffect(() => {
    const job = crypto.randomUUID();
    let current = true;
    const stop = onMailroom((event) => {
      if (current && event.kind === 'progress' && event.job === job)
        setProgress({ done: event.done, total: event.total });
    });
    void mailroom
      .filterReport(job)
      .then((value) => {
        if (current) setReport(value);
      })
      .finally(() => {
        if (current) setProgress(null);
        stop();
      });
    return () => {
      current = false;
      stop();
    };
  }, [revision]);
  return { report, progress };
}
