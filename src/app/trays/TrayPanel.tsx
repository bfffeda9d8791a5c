import { ArrowLeft } from 'lucide-react';
import { useState } from 'react';
import { Link } from 'react-router';
import { roundWords } from '../../core/delivery/rounds';
import type { Setup } from '../../core/line/setup';
import { count, messages } from '../../core/text/sentences';
import { dueWords, exactTime, shortTime } from '../../core/text/time';
import type { Row } from '../../mailroom/border/rows';
import type { View } from '../../mailroom/border/views';
import { mailroom } from '../../mailroom/client';
import { viewPath, wherePath, type Where } from '../paths';
import { SafeMessage } from '../reading/SafeMessage';
import { useMailbox } from '../state/overview';
import { useAnswer } from '../ui/useAnswer';
import { useNow } from '../ui/useNow';
import { Waiting } from '../ui/Waiting';

/** So many of a tray’s messages are listed in place; the tray’s own view has all of them. */
const mostListed = 200;

/** A message of the tray: a line that opens in place. */
function Line({ row, now, view }: { row: Row; now: number; view: View }) {
  const [open, setOpen] = useState(false);
  return (
    <li className="border-b border-base-300">
      <button
        className="flex min-h-8 w-full items-baseline gap-2 px-4 py-1 text-left hover:bg-base-200"
        aria-expanded={open}
        onClick={() => setOpen(!open)}
      >
        {row.unread && <span className="sr-only">Unread.</span>}
        <span className={`w-2/5 shrink-0 truncate ${row.unread ? 'font-bold' : ''}`}>
          {row.from.name || row.from.address || 'No sender'}
        </span>
        <span className={`min-w-0 flex-1 truncate ${row.unread ? 'font-bold' : ''}`}>
          {row.subject || 'No subject'}
        </span>
        <time className="quiet shrink-0 text-sm tabular-nums" title={exactTime(row.date)}>
          {shortTime(row.date, now)}
        </time>
      </button>
      {open && (
        <div className="border-t border-base-300 bg-base-200 p-2">
          <div className="rounded border border-base-300 bg-base-100">
            <SafeMessage row={row} when={exactTime(row.date)} />
            <p className="border-t border-base-300 px-4 py-2">
              <Link className="link" to={viewPath(view, row.id)}>
                Open it whole
              </Link>
            </p>
          </div>
        </div>
      )}
    </li>
  );
}

interface TrayPanelProps {
  /** The tray’s row. */
  row: Row & { tray: NonNullable<Row['tray']> };
  where: Where;
  setup: Setup;
}

/** A tray that was delivered, opened in place: its messages one under the other, each to be looked into. */
export function TrayPanel({ row: { tray, whole }, where, setup }: TrayPanelProps) {
  const { revision, overview } = useMailbox();
  const now = useNow();
  const view: View = { kind: 'place', place: 'inbox', tray: tray.id };
  const waits: View = { kind: 'place', place: 'held', tray: tray.id };
  const { value, error } = useAnswer(
    () => mailroom.rows(view, { grouped: false, elsewhere: false }, 0, mostListed),
    `${tray.id} ${revision}`,
  );
  const its = setup.trays.find(({ id }) => id === tray.id);
  const counts = overview?.trays.find((one) => one.tray === tray.id);
  return (
    <article aria-label="Tray" tabIndex={-1} className="flex h-full min-h-0 flex-col outline-none">
      <header className="border-b border-base-300 px-4 py-2">
        <Link
          to={wherePath({ ...where, message: null })}
          className="btn mb-1 btn-ghost btn-sm lg:hidden"
          aria-label="Back to the list"
        >
          <ArrowLeft size={18} /> List
        </Link>
        <h2 className="text-lg leading-snug font-semibold">{tray.name}</h2>
        <p className="quiet text-sm">
          {whole && `${count(whole.unread)} new of ${messages(whole.here)}`}
          {its && `, delivered ${roundWords(its.round)}`}
          {counts && counts.next !== null && `, next ${dueWords(counts.next, now)}`}.
        </p>
        <p className="flex flex-wrap gap-x-4 text-sm">
          <Link className="link" to={viewPath(view)}>
            As a view of its own
          </Link>
          {counts && counts.waits > 0 && (
            <Link className="link" to={viewPath(waits)}>
              Look at the {count(counts.waits)} that wait
            </Link>
          )}
          <Link className="link" to={`/trays/${encodeURIComponent(tray.id)}`}>
            Change the tray
          </Link>
        </p>
      </header>
      <div className="min-h-0 flex-1 overflow-y-auto" data-reading>
        {error && <p className="m-4 border-l-4 border-error bg-base-200 px-3 py-2">{error}</p>}
        {!value && !error && <Waiting says="Opening …" />}
        <ul aria-label={`In ${tray.name}`}>
          {value?.rows.map((row) => (
            <Line key={row.id} row={row} now={now} view={view} />
          ))}
        </ul>
        {value && value.total > value.rows.length && (
          <p className="px-4 py-3">
            <Link className="link" to={viewPath(view)}>
              All {messages(value.total)}, as a view of their own
            </Link>
          </p>
        )}
      </div>
    </article>
  );
}
