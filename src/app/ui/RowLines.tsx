import { Link } from 'react-router';
import { placeName } from '../../core/mail/place';
import type { Setup } from '../../core/line/setup';
import type { Row } from '../../mailroom/border/rows';
import { viewPath } from '../paths';
import { dayOf, exactTime, isoTime } from '../../core/text/time';

interface RowLinesProps {
  rows: readonly Row[];
  setup: Setup;
  label: string;
  /** In a narrow column, where it is known who wrote them. */
  narrow?: boolean;
}

/** Messages as lines that lead to them: a sample, to be looked over. */
export function RowLines({ rows, setup, label, narrow = false }: RowLinesProps) {
  return (
    <ul aria-label={label} className="flex flex-col text-sm">
      {rows.map((row) => (
        <li key={row.id} className="border-b border-base-300">
          <Link
            to={viewPath({ kind: 'place', place: row.place }, row.id)}
            className="flex min-h-7 items-baseline gap-3 py-0.5 hover:bg-base-200"
          >
            {!narrow && (
              <span className="w-36 shrink-0 truncate max-sm:w-24" dir="auto">
                {row.from.name || row.from.address || 'No sender'}
              </span>
            )}
            <span className={`min-w-0 flex-1 truncate ${row.unread ? 'font-bold' : ''}`} dir="auto">
              {row.unread && <span className="sr-only">Unread. </span>}
              {row.subject || 'No subject'}
            </span>
            {!narrow && (
              <span className="quiet shrink-0 text-xs max-sm:hidden">{placeName(row.place, setup.folders)}</span>
            )}
            <time
              className="quiet w-22 shrink-0 text-right tabular-nums"
              dateTime={isoTime(row.date)}
              title={exactTime(row.date)}
            >
              {dayOf(row.date)}
            </time>
          </Link>
        </li>
      ))}
    </ul>
  );
}
