import { CalendarClock, Check } from 'lucide-react';
import { useState } from 'react';
import { Link } from 'react-router';
import { placeName } from '../../core/mail/place';
import type { Setup } from '../../core/line/setup';
import type { Row } from '../../mailroom/border/rows';
import { mailroom } from '../../mailroom/client';
import { DueDialog } from '../desk/DueDialog';
import { PutOffDialog } from '../desk/PutOffDialog';
import { UndoSpot } from '../desk/StampBar';
import { viewPath } from '../paths';
import { runAct } from '../state/desk';
import { useMailbox } from '../state/overview';
import { InkMark, InkTag } from '../ui/InkTag';
import { Page } from '../ui/Page';
import { dueWords, exactTime, isoTime } from '../../core/text/time';
import { useNow } from '../ui/useNow';
import { useAnswer } from '../ui/useAnswer';
import { count } from '../../core/text/sentences';
import { Waiting } from '../ui/Waiting';
import { inStretches } from '../../core/agenda/stretches';

/** What is flagged, by due date, and what is put off: the beginning of the Agenda. */
export function AgendaPage() {
  const setup = useMailbox((s) => s.overview?.setup);
  const revision = useMailbox((s) => s.revision);
  // What falls due while one looks is late from then on.
  const tick = useNow(30_000);
  const { value, error } = useAnswer(
    async () => ({ ...(await mailroom.agenda()), now: Date.now() }),
    `${revision} ${tick}`,
  );
  const [dueOf, setDueOf] = useState<number | null>(null);
  const [putOffOf, setPutOffOf] = useState<number | null>(null);
  if (!setup) return null;
  const now = value?.now ?? 0;
  const groups = inStretches(value?.rows ?? [], now);
  const item = (row: Row) => (
    <AgendaItem key={row.id} row={row} setup={setup} now={now} onDue={() => setDueOf(row.id)} />
  );
  const putOffItem = (row: Row) => (
    <PutOffItem key={row.id} row={row} setup={setup} now={now} onPutOff={() => setPutOffOf(row.id)} />
  );
  return (
    <Page title="Agenda" acts={<UndoSpot />}>
      {error && <p className="border-l-4 border-error bg-base-200 px-3 py-2">{error}</p>}
      {!value && !error && <Waiting says="Looking for flags …" />}
      {value?.total === 0 && value.putOffTotal === 0 && (
        <p className="max-w-prose">
          Nothing is flagged. Open a message and press <kbd className="key">D</kbd> to flag it for a day, or{' '}
          <kbd className="key">F</kbd> without one: it stands here until it is done.
        </p>
      )}
      {groups
        .filter(({ rows }) => rows.length > 0)
        .map(({ title, rows }) => (
          <section key={title} aria-label={title} className="mb-5 max-w-4xl">
            <h2 className={`mb-1 font-semibold ${title === 'Late' ? 'text-accent' : ''}`}>
              {title} <span className="quiet font-normal tabular-nums">{count(rows.length)} flagged</span>
            </h2>
            <ul className="flex flex-col">{rows.map(item)}</ul>
          </section>
        ))}
      {value && value.total > value.rows.length && (
        <p className="quiet mb-5">and {count(value.total - value.rows.length)} more without a date.</p>
      )}
      {value && value.putOff.length > 0 && (
        <section aria-label="Put off" className="mb-5 max-w-4xl">
          <h2 className="mb-1 font-semibold">
            Put off <span className="quiet font-normal tabular-nums">{count(value.putOffTotal)} in Held</span>
          </h2>
          <ul className="flex flex-col">{value.putOff.map(putOffItem)}</ul>
        </section>
      )}
      {value && value.done.length > 0 && (
        <section aria-label="Done" className="mb-5 max-w-4xl">
          <h2 className="quiet mb-1 font-semibold">
            Done <span className="font-normal tabular-nums">{count(value.doneTotal)}</span>
          </h2>
          <ul className="flex flex-col">{value.done.map(item)}</ul>
        </section>
      )}
      {putOffOf !== null && <PutOffDialog selection={{ ids: [putOffOf] }} onClose={() => setPutOffOf(null)} />}
      {dueOf !== null && <DueDialog selection={{ ids: [dueOf] }} onClose={() => setDueOf(null)} />}
    </Page>
  );
}

interface AgendaItemProps {
  row: Row;
  setup: Setup;
  now: number;
  onDue: () => void;
}

function AgendaItem({ row, setup, now, onDue }: AgendaItemProps) {
  const subject = row.subject || 'No subject';
  return (
    <li
      className={`flex flex-wrap items-center gap-x-3 gap-y-1 border-b border-base-300 px-2 py-1.5 ${row.ink ? `inked ink-${row.ink}` : ''}`}
    >
      {row.flagged ? (
        <button
          className="btn btn-square btn-outline btn-xs [&:not(:hover,:focus-visible)>svg]:opacity-0"
          aria-label={`Done: ${subject}`}
          title="Done"
          onClick={() => void runAct({ ids: [row.id] }, { do: 'done' })}
        >
          <Check size={14} />
        </button>
      ) : (
        <button
          className="btn btn-ghost btn-xs"
          aria-label={`Flag again: ${subject}`}
          onClick={() => void runAct({ ids: [row.id] }, { do: 'flag', value: true })}
        >
          Flag again
        </button>
      )}
      <What row={row} setup={setup} />
      {row.ink && <InkMark ink={row.ink} />}
      {row.labels.slice(0, 3).map((label) => (
        <InkTag key={label} id={label} setup={setup} />
      ))}
      {row.due !== null && (
        <time
          className={`text-sm whitespace-nowrap ${row.late ? 'font-semibold text-accent' : ''}`}
          dateTime={isoTime(row.due)}
          title={exactTime(row.due)}
        >
          {dueWords(row.due, now)}
        </time>
      )}
      {row.flagged && (
        <button
          className="btn btn-ghost btn-xs"
          onClick={onDue}
          aria-label={`Another date: ${subject}`}
          title="Another date"
        >
          <CalendarClock size={14} />
        </button>
      )}
    </li>
  );
}

/** What a line of the Agenda is about: its subject, which opens it, who wrote and where it is. */
function What({ row, setup }: { row: Row; setup: Setup }) {
  return (
    <span className="flex min-w-52 flex-1 flex-col">
      <Link
        className={`link truncate ${row.unread ? 'font-bold' : ''}`}
        to={viewPath({ kind: 'place', place: row.place }, row.id)}
        dir="auto"
      >
        {row.subject || 'No subject'}
      </Link>
      <span className="quiet truncate text-sm" dir="auto">
        {row.own ? `To ${row.to.map((a) => a.name || a.address).join(', ')}` : row.from.name || row.from.address} ·{' '}
        {placeName(row.place, setup.folders)}
      </span>
    </span>
  );
}

interface PutOffItemProps {
  row: Row;
  setup: Setup;
  now: number;
  onPutOff: () => void;
}

/** What is put off: until when, another moment, and back at once. */
function PutOffItem({ row, setup, now, onPutOff }: PutOffItemProps) {
  const subject = row.subject || 'No subject';
  const until = row.until ?? 0;
  return (
    <li className="flex flex-wrap items-center gap-x-3 gap-y-1 border-b border-base-300 px-2 py-1.5">
      <What row={row} setup={setup} />
      <time className="text-sm whitespace-nowrap" dateTime={isoTime(until)} title={exactTime(until)}>
        until {dueWords(until, now)}
      </time>
      <button
        className="btn btn-ghost btn-xs"
        aria-label={`Back to the Inbox: ${subject}`}
        onClick={() => void runAct({ ids: [row.id] }, { do: 'move', place: 'inbox' })}
      >
        Back to the Inbox
      </button>
      <button
        className="btn btn-ghost btn-xs"
        onClick={onPutOff}
        aria-label={`Another moment: ${subject}`}
        title="Another moment"
      >
        <CalendarClock size={14} />
      </button>
    </li>
  );
}
