import { format } from 'date-fns';
import { Fragment, useEffect, useRef, useState } from 'react';
import { Link, useSearchParams } from 'react-router';
import type { LogEntry, LogFilter, LogWindow } from '../../mailroom/border/log';
import { mailroom } from '../../mailroom/client';
import { undoOf } from '../../core/line/undoWords';
import { logKinds, type LogKind } from '../../core/line/logKinds';
import type { Setup } from '../../core/line/setup';
import { ruleName } from '../../core/rules/ruleWords';
import { entryWords } from '../../core/senders/register';
import { undoEntry, useDesk } from '../state/desk';
import { useMailbox } from '../state/overview';
import { Page } from '../ui/Page';
import { dayOf, exactTime } from '../../core/text/time';
import { useAnswer } from '../ui/useAnswer';
import { count } from '../../core/text/sentences';
import { Waiting } from '../ui/Waiting';
import { LogDetails } from './LogDetails';
import { isNarrowed, readLogFilter, whoInAddress, whoNames } from './logFilter';

const step = 100;

const kindNames: Record<LogKind, string> = {
  moved: 'moved',
  marked: 'marked as read, junk or silenced',
  flagged: 'flagged',
  labelled: 'labelled',
  arrived: 'arrived or brought in',
  agenda: 'tasks and appointments',
  setup: 'settings',
  undone: 'undone',
  deleted: 'deleted for good',
};

interface EntryProps {
  entry: LogEntry;
  /** Of which only what this decided is shown; null for all. */
  decidedBy: string | null;
  /** Led to by its number. */
  wanted: boolean;
  open: boolean;
  onOpen: (open: boolean) => void;
}

function Entry({ entry, decidedBy, wanted, open, onOpen }: EntryProps) {
  const row = useRef<HTMLTableRowElement>(null);
  useEffect(() => {
    if (wanted) row.current?.scrollIntoView({ block: 'center' });
  }, [wanted]);
  const undone = entry.undoneBy !== null;
  const { what, again } = undoOf(entry.says, entry.undoes !== null);
  const undoWord = again ? 'Do again' : 'Undo';
  return (
    <Fragment>
      <tr ref={row} className={wanted ? 'bg-base-300' : undone ? 'quiet' : ''}>
        <td className="w-44 whitespace-nowrap tabular-nums max-sm:w-auto max-sm:whitespace-normal">
          {exactTime(entry.at)}
        </td>
        <td className="w-28 whitespace-nowrap max-sm:hidden">{entry.by === 'you' ? 'You' : entry.by}</td>
        <td className="[overflow-wrap:anywhere]">
          {entry.count > 0 ? (
            <button
              className="min-h-6 text-left underline decoration-dotted underline-offset-4"
              aria-expanded={open}
              onClick={() => onOpen(!open)}
            >
              <span className={undone ? 'line-through' : ''}>{entry.says}</span>
            </button>
          ) : (
            <span className={undone ? 'line-through' : ''}>{entry.says}</span>
          )}
          {undone && <span className="ml-2">undone</span>}
          {entry.decided !== null && (
            <span className="quiet ml-2 whitespace-nowrap">
              {entry.decided === entry.count ? 'all' : count(entry.decided)} by it
            </span>
          )}
        </td>
        <td className="w-24 text-right">
          {entry.undoable && (
            <button
              className="btn btn-outline btn-xs"
              onClick={() => void undoEntry(entry.seq)}
              title={`Until ${dayOf(entry.keptUntil)} at the least`}
              aria-label={`${undoWord}: ${what}`}
            >
              {undoWord}
            </button>
          )}
        </td>
      </tr>
      {open && (
        <tr>
          <td colSpan={4} className="bg-base-200 px-4 py-3">
            <LogDetails entry={entry} decidedBy={decidedBy} />
          </td>
        </tr>
      )}
    </Fragment>
  );
}

function Whose({ who, onChange }: { who: string; onChange: (who: string) => void }) {
  return (
    <div className="join max-w-full overflow-x-auto" role="group" aria-label="Whose entries">
      {whoNames.map(([key, word]) => (
        <button
          key={key}
          className={`btn join-item btn-sm ${who === key ? 'btn-primary' : ''}`}
          aria-pressed={who === key}
          onClick={() => onChange(key)}
        >
          {word}
        </button>
      ))}
    </div>
  );
}

interface FiltersProps {
  filter: LogFilter;
  narrowed: boolean;
  /** Writes some of the filter into the address; null takes it out. */
  set: (some: Record<string, string | null>) => void;
}

/** So many entries of the Register stand in the list; the others are come to from the Register. */
const mostEntries = 200;

/** What can have decided about messages, as a trace names it, and in words; with what is asked for, also if it is gone. */
function deciders(setup: Setup, asked: string | null): [by: string, word: string][] {
  const all: [string, string][] = [
    ['junk', 'Junk filter'],
    ['delivery', 'Hold'],
    ...setup.trays.map(({ id, name }): [string, string] => [`tray:${id}`, `Tray: ${name}`]),
    ...setup.rules.map((rule): [string, string] => [`rule:${rule.id}`, `Rule: ${ruleName(rule, setup)}`]),
    ...setup.register.map((entry): [string, string] => [`entry:${entry.id}`, `Register: ${entryWords(entry)}`]),
  ];
  const shown = all.slice(0, 2 + setup.trays.length + setup.rules.length + mostEntries);
  if (asked === null || shown.some(([by]) => by === asked)) return shown;
  return [...shown, all.find(([by]) => by === asked) ?? [asked, 'something that is not there any more']];
}

/** What is looked for in the Logbook. */
function Filters({ filter, narrowed, set }: FiltersProps) {
  const setup = useMailbox((s) => s.overview?.setup);
  return (
    <div className="mb-3 flex flex-wrap items-end gap-3" role="search" aria-label="Entries">
      <label className="flex flex-col text-sm">
        What
        <select
          className="select w-44 select-sm"
          value={filter.what ?? ''}
          onChange={(event) => set({ what: event.target.value })}
        >
          <option value="">anything</option>
          {logKinds.map((kind) => (
            <option key={kind} value={kind}>
              {kindNames[kind]}
            </option>
          ))}
        </select>
      </label>
      {(
        [
          ['since', 'On this day or later', filter.since],
          ['until', 'Up to this day', filter.before === null ? null : filter.before - 1],
        ] as const
      ).map(([key, word, time]) => (
        <label key={key} className="flex flex-col text-sm">
          {word}
          <input
            type="date"
            className="input input-sm w-40"
            value={time === null ? '' : format(time, 'yyyy-MM-dd')}
            onChange={(event) => set({ [key]: event.target.value })}
          />
        </label>
      ))}
      <label className="flex flex-col text-sm">
        Says
        <input
          className="input input-sm w-40"
          placeholder="words of the entry"
          value={filter.words}
          onChange={(event) => set({ words: event.target.value })}
        />
      </label>
      {setup && (
        <label className="flex flex-col text-sm">
          Decided by
          <select
            className="select w-44 select-sm"
            value={filter.decidedBy ?? ''}
            onChange={(event) => set({ by: event.target.value })}
          >
            <option value="">anything</option>
            {deciders(setup, filter.decidedBy).map(([by, word]) => (
              <option key={by} value={by}>
                {word}
              </option>
            ))}
          </select>
        </label>
      )}
      {narrowed && (
        <button
          className="btn btn-ghost btn-sm"
          onClick={() => set({ what: null, since: null, until: null, message: null, by: null, words: null })}
        >
          Show all
        </button>
      )}
    </div>
  );
}

/** That only one message's entries are shown; null where the message is not here any more. */
function OfMessage({ message }: { message: LogWindow['message'] }) {
  return (
    <p className="mb-2 border-l-4 border-primary bg-base-200 px-3 py-1.5">
      {message ? (
        <>
          Only what touched{' '}
          <Link className="link" to={`/find/${encodeURIComponent('all')}/m/${message.id}`}>
            “{message.subject || 'No subject'}”
          </Link>{' '}
          of {dayOf(message.date)}.
        </>
      ) : (
        'Only what touched a message that is not here any more.'
      )}
    </p>
  );
}

/** The entries, each opened by itself. */
function Entries({
  entries,
  decidedBy,
  wanted,
}: Pick<EntryProps, 'decidedBy'> & { entries: readonly LogEntry[]; wanted: number }) {
  const [open, setOpen] = useState<ReadonlySet<number>>(new Set());
  return (
    <table className="table table-sm">
      <thead>
        <tr>
          <th>When</th>
          <th className="max-sm:hidden">Who</th>
          <th>What</th>
          <th>
            <span className="sr-only">Undo</span>
          </th>
        </tr>
      </thead>
      <tbody>
        {entries.map((entry) => (
          <Entry
            key={entry.seq}
            entry={entry}
            decidedBy={decidedBy}
            wanted={entry.seq === wanted}
            open={open.has(entry.seq)}
            onOpen={(its) => {
              const next = new Set(open);
              if (its) next.add(entry.seq);
              else next.delete(entry.seq);
              setOpen(next);
            }}
          />
        ))}
      </tbody>
    </table>
  );
}

/** The Logbook: everything that was done, by whom, to which messages, each undone from here while it can be. */
export function LogbookPage() {
  const revision = useMailbox((s) => s.revision);
  const notice = useDesk((s) => s.notice);
  const [query, setQuery] = useSearchParams();
  const [shown, setShown] = useState(step);
  const filter = readLogFilter(query);
  const wanted = Number(query.get('entry') ?? -1);
  // An entry that is led to may stand far down.
  const upTo = wanted >= 0 ? Math.max(shown, 2_000) : shown;
  const question = JSON.stringify(filter);
  const { value, waiting, error } = useAnswer(
    () => mailroom.logbook(filter, 0, upTo),
    `${question} ${upTo} ${revision}`,
  );
  const set = (some: Record<string, string | null>) => {
    const next = new URLSearchParams(query);
    next.delete('entry');
    for (const [key, its] of Object.entries(some)) {
      if (its) next.set(key, its);
      else next.delete(key);
    }
    setShown(step);
    // What is typed is shown at once, not when the page has time.
    setQuery(next, { replace: true, flushSync: true });
  };
  const who = whoInAddress(filter);
  const narrowed = isNarrowed(filter);

  return (
    <Page title="Logbook" acts={<Whose who={who} onChange={(key) => set({ who: key })} />}>
      <Filters filter={filter} narrowed={narrowed} set={set} />
      {filter.message !== null && value && <OfMessage message={value.message} />}
      <p
        role="status"
        aria-live="polite"
        className={`mb-2 min-h-5 text-sm ${notice?.tone === 'trouble' ? 'font-semibold text-error' : 'quiet'}`}
      >
        {notice?.text ?? ''}
      </p>
      {error && <p className="border-l-4 border-error bg-base-200 px-3 py-2">{error}</p>}
      {value && value.total === 0 && (
        <p>
          {narrowed
            ? 'Nothing in the Logbook is of that kind.'
            : 'Nothing was done yet. Every act on your mail will stand here, and can be undone here.'}
        </p>
      )}
      {!value && waiting && <Waiting says="Opening the Logbook …" />}
      {value && value.total > 0 && (
        <>
          <Entries entries={value.entries} decidedBy={filter.decidedBy} wanted={wanted} />
          <div className="mt-3 flex items-center gap-3">
            <span className="quiet text-sm">
              {count(Math.min(value.entries.length, value.total))} of {count(value.total)}{' '}
              {value.total === 1 ? 'entry' : 'entries'}
            </span>
            {value.entries.length < value.total && (
              <button className="btn btn-outline btn-sm" onClick={() => setShown(shown + step)}>
                Show more
              </button>
            )}
          </div>
        </>
      )}
      {value && (
        <p className="quiet mt-3 max-w-prose text-sm">
          The Logbook keeps its newest 5,000 entries, and everything of the last {value.keptDays} days: so long an act
          can be undone, but for mail that was deleted for good since.{' '}
          {value.keptSince !== null &&
            `Those from before ${dayOf(value.keptSince)} have been let go: what they did stays done.`}
        </p>
      )}
    </Page>
  );
}
