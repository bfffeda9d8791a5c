import { format } from 'date-fns';
import { useEffect, useRef } from 'react';
import type { Month } from '../../mailroom/border/months';
import { count } from '../../core/text/sentences';
import { useSight } from './sight';

/** The years and months of a view, the newest first: a press goes to where a month begins. */
export function Months({ months, onGo }: { months: Month[]; onGo: (index: number) => void }) {
  const first = useSight((s) => s.first);
  const here = months.findLastIndex((month) => month.first <= first);
  const mark = useRef<HTMLButtonElement>(null);
  useEffect(() => {
    mark.current?.scrollIntoView({ block: 'nearest' });
  }, [here]);
  const most = Math.max(...months.map(({ rows }) => rows));
  return (
    <nav
      aria-label="Years and months"
      className="flex w-19 shrink-0 flex-col overflow-y-auto border-l border-base-300 bg-base-200 pb-2 text-xs"
    >
      {months.map(({ month, first: begins, rows }, at) => {
        const date = new Date(`${month}-01T00:00`);
        const year = month.slice(0, 4);
        return (
          <div key={month}>
            {months[at - 1]?.month.slice(0, 4) !== year && (
              <p className="px-2 pt-2 pb-0.5 font-bold tabular-nums">{year}</p>
            )}
            <button
              ref={at === here ? mark : undefined}
              className={`relative flex min-h-6 w-full items-baseline gap-1 px-2 py-0.5 hover:bg-base-300 ${at === here ? 'bg-base-300 font-semibold' : ''}`}
              aria-current={at === here || undefined}
              onClick={() => onGo(begins)}
            >
              <span
                aria-hidden
                className="absolute inset-y-0.5 left-0 rounded-r bg-primary/15"
                style={{ width: `${Math.max(3, (rows / most) * 100)}%` }}
              />
              <span className="relative">{format(date, 'MMM')}</span>
              <span className="sr-only">{` ${year}: `}</span>
              <span className="quiet relative ml-auto tabular-nums">{count(rows)}</span>
              <span className="sr-only">{rows === 1 ? ' row' : ' rows'}</span>
            </button>
          </div>
        );
      })}
    </nav>
  );
}
