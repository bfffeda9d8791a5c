import { useState } from 'react';
import { Link, useSearchParams } from 'react-router';
import { placeName } from '../../core/mail/place';
import type { Setup } from '../../core/line/setup';
import type { Suspect } from '../../mailroom/border/junk';
import { mailroom } from '../../mailroom/client';
import { UndoSpot } from '../desk/StampBar';
import { settingPath, settingWords, viewPath } from '../paths';
import { runAct } from '../state/desk';
import { useMailbox } from '../state/overview';
import { Page } from '../ui/Page';
import { shortTime } from '../../core/text/time';
import { useAnswer } from '../ui/useAnswer';
import { Form } from '../ui/Form';
import { count, messages } from '../../core/text/sentences';

/** Messages shown of each setting at first. */
const fewRows = 5;

/** Where did my mail go? Every setting that could have taken a message that is missed, and what it did take. */
export function WherePage() {
  const setup = useMailbox((s) => s.overview?.setup);
  const revision = useMailbox((s) => s.revision);
  const [search, setSearch] = useSearchParams();
  const asked = search.get('of') ?? '';
  const [typed, setTyped] = useState(asked);
  const { value, error, waiting } = useAnswer(() => mailroom.whereWent(asked), `${asked} ${revision}`);
  if (!setup) return null;
  return (
    <Page title="Where did my mail go?" acts={<UndoSpot />}>
      <Form
        className="mb-4 max-w-2xl"
        role="search"
        onSubmit={() => setSearch(typed.trim() ? { of: typed.trim() } : {})}
      >
        <label htmlFor="missed" className="mb-1 block font-semibold">
          A sender, their domain, or words of the subject
        </label>
        <div className="flex gap-2">
          <input
            id="missed"
            className="input w-full"
            autoComplete="off"
            spellCheck={false}
            autoFocus
            value={typed}
            onChange={(e) => setTyped(e.target.value)}
          />
          <button className="btn btn-primary">Look</button>
        </div>
        <p className="quiet mt-1 text-sm">
          You see every setting that keeps such mail from the Inbox, and what it took. Nothing is changed by looking.
        </p>
      </Form>
      {error && <p className="border-l-4 border-error bg-base-200 px-3 py-2">{error}</p>}
      {asked && value && (
        <div aria-busy={waiting} className="flex max-w-4xl flex-col gap-4">
          <p role="status">
            {value.found === 0 ? (
              <>No message here is from “{asked}” or has those words. If it was sent, it has not reached Wide Sort.</>
            ) : (
              <>
                <strong>{messages(value.found)}</strong> here of that kind, {count(value.inInbox)} in the Inbox.
              </>
            )}
          </p>
          {value.found > 0 && value.suspects.length === 0 && <p>Nothing keeps such mail from the Inbox.</p>}
          {value.suspects.map((suspect, i) => (
            <SuspectCard key={i} suspect={suspect} setup={setup} />
          ))}
        </div>
      )}
    </Page>
  );
}

function SuspectCard({ suspect, setup }: { suspect: Suspect; setup: Setup }) {
  const { setting, says, took, ids, rows } = suspect;
  const [all, setAll] = useState(false);
  const shown = all ? rows : rows.slice(0, fewRows);
  const [now] = useState(() => Date.now());
  return (
    <section className="rounded border border-base-300 px-4 py-3" aria-label={says}>
      <h2 className="flex flex-wrap items-baseline gap-x-3 font-semibold [overflow-wrap:anywhere]">
        {says}
        {took > 0 && <span className="quiet font-normal">{messages(took)}</span>}
        {setting && (
          <Link className="link ml-auto text-sm font-normal" to={settingPath(setting)}>
            {settingWords(setting)}
          </Link>
        )}
      </h2>
      {rows.length > 0 && (
        <ul className="mt-1">
          {shown.map((row) => (
            <li key={row.id} className="flex flex-wrap items-baseline gap-x-3 border-t border-base-300 py-1">
              <Link
                className="link min-w-0 flex-1 truncate"
                to={viewPath({ kind: 'place', place: row.place }, row.id)}
                title={row.subject}
              >
                {row.subject || 'No subject'}
              </Link>
              <span className="max-w-48 truncate text-sm">{row.from.name || row.from.address}</span>
              <span className="quiet text-sm whitespace-nowrap">
                {placeName(row.place, setup.folders)} · {shortTime(row.date, now)}
              </span>
            </li>
          ))}
        </ul>
      )}
      {took > shown.length && rows.length > 0 && (
        <p className="quiet text-sm">
          and {count(took - shown.length)} more.{' '}
          {rows.length > shown.length && (
            <button className="link" onClick={() => setAll(true)}>
              Show {count(rows.length)}
            </button>
          )}
        </p>
      )}
      {ids.length > 0 && (
        <button className="btn mt-2 btn-sm" onClick={() => void runAct({ ids }, { do: 'move', place: 'inbox' })}>
          {ids.length === 1 ? 'Bring it to the Inbox' : `Bring all ${count(ids.length)} to the Inbox`}
        </button>
      )}
    </section>
  );
}
