import { useEffect, useRef, useState } from 'react';
import { useSearchParams } from 'react-router';
import { mailroom } from '../../mailroom/client';
import { undoEntry, useDesk } from '../state/desk';
import { useMailbox } from '../state/mailbox';
import { Page } from '../ui/Page';
import { exactTime } from '../ui/time';
import { useAnswer } from '../ui/useAnswer';
import { count } from '../ui/words';

const step = 100;

/** The Logbook: everything that was done, by whom, each undone from here while it can be. */
export function LogbookPage() {
  const revision = useMailbox((s) => s.revision);
  const notice = useDesk((s) => s.notice);
  const [search, setSearch] = useSearchParams();
  const [shown, setShown] = useState(step);
  const who = search.get('who') === 'all' ? 'all' : search.has('entry') ? 'all' : 'you';
  const wanted = Number(search.get('entry') ?? -1);
  const { value, waiting } = useAnswer(() => mailroom.logbook(who, 0, shown), `${who} ${shown} ${revision}`);
  const marked = useRef<HTMLTableRowElement>(null);
  const here = value?.entries.some((e) => e.seq === wanted) ?? false;
  useEffect(() => marked.current?.scrollIntoView({ block: 'center' }), [here]);

  return (
    <Page
      title="Logbook"
      acts={
        <div className="join" role="group" aria-label="Whose entries">
          {(
            [
              ['you', 'What you did'],
              ['all', 'Everything'],
            ] as const
          ).map(([key, word]) => (
            <button
              key={key}
              className={`btn join-item btn-sm ${who === key ? 'btn-primary' : ''}`}
              aria-pressed={who === key}
              onClick={() => setSearch({ who: key })}
            >
              {word}
            </button>
          ))}
        </div>
      }
    >
      <p
        role="status"
        aria-live="polite"
        className={`mb-2 min-h-5 text-sm ${notice?.tone === 'trouble' ? 'font-semibold text-error' : 'quiet'}`}
      >
        {notice?.text ?? ''}
      </p>
      {value && value.total === 0 && (
        <p>Nothing was done yet. Every act on your mail will stand here, and can be undone here.</p>
      )}
      {!value && waiting && <p className="quiet">Opening the Logbook …</p>}
      {value && value.total > 0 && (
        <>
          <table className="table table-sm">
            <thead>
              <tr>
                <th>When</th>
                <th>Who</th>
                <th>What</th>
                <th>
                  <span className="sr-only">Undo</span>
                </th>
              </tr>
            </thead>
            <tbody>
              {value.entries.map((entry) => (
                <tr
                  key={entry.seq}
                  ref={entry.seq === wanted ? marked : undefined}
                  className={entry.seq === wanted ? 'bg-base-300' : entry.undoneBy !== null ? 'quiet' : ''}
                >
                  <td className="w-44 whitespace-nowrap tabular-nums">{exactTime(entry.at)}</td>
                  <td className="w-28 whitespace-nowrap">{entry.by === 'you' ? 'You' : entry.by}</td>
                  <td className="[overflow-wrap:anywhere]">
                    <span className={entry.undoneBy !== null ? 'line-through' : ''}>{entry.says}</span>
                    {entry.undoneBy !== null && <span className="ml-2">undone</span>}
                  </td>
                  <td className="w-24 text-right">
                    {entry.undoable && (
                      <button
                        className="btn btn-outline btn-xs"
                        onClick={() => void undoEntry(entry.seq)}
                        aria-label={`Undo: ${entry.says}`}
                      >
                        {entry.undoes === null ? 'Undo' : 'Do again'}
                      </button>
                    )}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
          <div className="mt-3 flex items-center gap-3">
            <span className="quiet text-sm">
              {count(Math.min(value.entries.length, value.total))} of {count(value.total)} entries
            </span>
            {value.entries.length < value.total && (
              <button className="btn btn-outline btn-sm" onClick={() => setShown(shown + step)}>
                Show more
              </button>
            )}
          </div>
        </>
      )}
    </Page>
  );
}
