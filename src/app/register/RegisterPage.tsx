import { ArrowDown, ArrowUp, Plus } from 'lucide-react';
import { useMemo, useState } from 'react';
import { Link } from 'react-router';
import { registerToCsv } from '../../core/senders/registerCsv';
import { entryLabel, entryWords, type Entry } from '../../core/senders/register';
import { mailroom } from '../../mailroom/client';
import type { EntryUse } from '../../mailroom/border/junk';
import { UndoSpot } from '../desk/StampBar';
import { useMailbox } from '../state/overview';
import { Page } from '../ui/Page';
import { saveFile } from '../ui/save';
import { dayOf } from '../../core/text/time';
import { useAnswer } from '../ui/useAnswer';
import { count } from '../../core/text/sentences';
import { columns, ordered, type Sorting, type Uses } from './entryOrder';
import { kindWords } from './kinds';
import { TakeOffDialog } from './TakeOffDialog';

const inSight = 200;

/** A standing, or either. */
type AnyStanding = '' | Entry['standing'];

interface FiltersProps {
  wanted: string;
  onWanted: (words: string) => void;
  standing: AnyStanding;
  onStanding: (standing: AnyStanding) => void;
}

function Filters({ wanted, onWanted, standing, onStanding }: FiltersProps) {
  return (
    <div className="mb-3 flex flex-wrap items-center gap-x-4 gap-y-2">
      <label className="flex max-w-sm flex-1 items-center gap-2">
        <span className="whitespace-nowrap">Show only</span>
        <input
          className="input input-sm w-full"
          value={wanted}
          placeholder="part of an address, country or reason"
          onChange={(e) => onWanted(e.target.value)}
        />
      </label>
      <label className="flex items-center gap-2">
        <span className="sr-only">Standing</span>
        <select
          className="select select-sm"
          value={standing}
          onChange={(e) => onStanding(e.target.value as typeof standing)}
        >
          <option value="">Safe and Blocked</option>
          <option value="safe">Safe</option>
          <option value="blocked">Blocked</option>
        </select>
      </label>
    </div>
  );
}

const unused: EntryUse = { decided: 0, last: null };

/** `use`: null while it is being counted. */
function EntryRow({ entry, use, onTakeOff }: { entry: Entry; use: EntryUse | null; onTakeOff: () => void }) {
  return (
    <tr>
      <td className="max-w-72 min-w-44 [overflow-wrap:anywhere]">
        <Link className="link" to={`/register/${encodeURIComponent(entry.id)}`}>
          {entryLabel(entry)}
        </Link>
      </td>
      <td className="whitespace-nowrap">{kindWords[entry.kind].name}</td>
      <td className={`font-semibold ${entry.standing === 'blocked' ? 'text-error' : 'text-success'}`}>
        {entry.standing === 'blocked' ? 'Blocked' : 'Safe'}
      </td>
      <td className="whitespace-nowrap">{entry.since ? dayOf(entry.since) : '–'}</td>
      <td className="text-right tabular-nums">
        {!use ? (
          '…'
        ) : use.decided === 0 ? (
          0
        ) : (
          <Link
            className="link"
            title="What it did, in the Logbook"
            to={`/logbook?${new URLSearchParams({ by: `entry:${entry.id}` }).toString()}`}
          >
            {count(use.decided)}
          </Link>
        )}
      </td>
      <td className="whitespace-nowrap">{use?.last ? dayOf(use.last) : '–'}</td>
      <td className="max-w-64 truncate" title={entry.why}>
        {entry.why}
      </td>
      <td className="text-right">
        <button
          className="btn whitespace-nowrap btn-ghost btn-xs"
          aria-label={`Take off ${entryWords(entry)}`}
          onClick={onTakeOff}
        >
          Take off
        </button>
      </td>
    </tr>
  );
}

interface EntryTableProps {
  entries: readonly Entry[];
  uses: Uses | null;
  by: Sorting;
  onOrder: (by: Sorting) => void;
  onTakeOff: (entry: Entry) => void;
}

function EntryTable({ entries, uses, by, onOrder, onTakeOff }: EntryTableProps) {
  return (
    <table className="table table-sm">
      <thead>
        <tr>
          {columns.map(([order, word]) => {
            const on = by.order === order;
            const Arrow = by.turned ? ArrowUp : ArrowDown;
            return (
              <th key={order} aria-sort={on ? (by.turned ? 'descending' : 'ascending') : undefined}>
                <button
                  className="flex min-h-6 items-center gap-1 font-semibold"
                  onClick={() => onOrder({ order, turned: on && !by.turned })}
                >
                  {word} {on && <Arrow size={14} aria-hidden />}
                </button>
              </th>
            );
          })}
          <th>Why</th>
          <th>
            <span className="sr-only">Acts</span>
          </th>
        </tr>
      </thead>
      <tbody>
        {entries.map((entry) => (
          <EntryRow
            key={entry.id}
            entry={entry}
            use={uses ? (uses[entry.id] ?? unused) : null}
            onTakeOff={() => onTakeOff(entry)}
          />
        ))}
      </tbody>
    </table>
  );
}

/** The Register: all standing decisions about senders, own addresses, lists, countries and writing, in one table. */
export function RegisterPage() {
  const setup = useMailbox((s) => s.overview?.setup);
  const revision = useMailbox((s) => s.revision);
  const [wanted, setWanted] = useState('');
  const [standing, setStanding] = useState<AnyStanding>('');
  const [by, setBy] = useState<Sorting>({ order: 'about', turned: false });
  const [shownUpTo, setShownUpTo] = useState(inSight);
  const [takingOff, setTakingOff] = useState<Entry | null>(null);
  const { value: uses } = useAnswer(() => mailroom.registerUse(), String(revision));
  const shown = useMemo(() => {
    const word = wanted.trim().toLowerCase();
    const fit = (setup?.register ?? []).filter(
      (e) =>
        (standing === '' || e.standing === standing) &&
        `${entryWords(e)} ${kindWords[e.kind].name} ${e.why}`.toLowerCase().includes(word),
    );
    return ordered(fit, uses ?? {}, by.order, by.turned);
  }, [setup, wanted, standing, uses, by]);
  if (!setup) return null;
  const { register } = setup;

  return (
    <Page
      title="Register"
      acts={
        <>
          <UndoSpot />
          <button
            className="btn btn-sm"
            disabled={register.length === 0}
            onClick={() => saveFile(new Blob([registerToCsv(register)], { type: 'text/csv' }), 'register.csv')}
          >
            Save as CSV
          </button>
          <Link className="btn btn-sm" to="/register/many">
            Several at once
          </Link>
          <Link className="btn btn-primary btn-sm" to="/register/new">
            <Plus size={16} aria-hidden /> New entry
          </Link>
        </>
      }
    >
      <p className="mb-4 max-w-prose">
        Who and what is Safe, and who is Blocked. The more exact entry wins: an address before its domain, a domain
        before the one above it, both before lists and own addresses, and these before countries, character sets and
        writing systems. Mail that is Safe is never Junk; Blocked mail goes to Junk, where it can be found and brought
        back.{' '}
        <Link className="link" to="/where">
          Where did my mail go?
        </Link>
      </p>
      {register.length === 0 ? (
        <p>
          Nobody yet. Open a message and press <strong>Block sender</strong> or <strong>Safe sender</strong>, make a{' '}
          <Link className="link" to="/register/new">
            new entry
          </Link>
          , or take up{' '}
          <Link className="link" to="/register/many">
            several at once
          </Link>
          .
        </p>
      ) : (
        <>
          <Filters wanted={wanted} onWanted={setWanted} standing={standing} onStanding={setStanding} />
          <div className="overflow-x-auto">
            <EntryTable
              entries={shown.slice(0, shownUpTo)}
              uses={uses}
              by={by}
              onOrder={setBy}
              onTakeOff={setTakingOff}
            />
          </div>
          <p className="quiet mt-3 text-sm" role="status">
            {count(Math.min(shownUpTo, shown.length))} of {count(register.length)} shown.{' '}
            {shown.length > shownUpTo && (
              <button className="link" onClick={() => setShownUpTo(shownUpTo + inSight)}>
                Show {count(inSight)} more
              </button>
            )}
          </p>
        </>
      )}
      {takingOff && <TakeOffDialog entry={takingOff} onClose={() => setTakingOff(null)} />}
    </Page>
  );
}
