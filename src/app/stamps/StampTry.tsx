import { Link } from 'react-router';
import type { Setup } from '../../core/line/setup';
import { opensFirst, type Stamp } from '../../core/stamps/stamp';
import { actionWords } from '../../core/effects/effects';
import { placeName } from '../../core/mail/place';
import { count, messages } from '../../core/text/sentences';
import { mailroom } from '../../mailroom/client';
import { viewPath } from '../paths';
import { useMailbox } from '../state/overview';
import { useAnswer } from '../ui/useAnswer';

/** The dry run of a stamp: what it would do to some messages, act by act. */
export function StampTry({ stamp, ids, setup }: { stamp: Stamp; ids: readonly number[]; setup: Setup }) {
  const revision = useMailbox((s) => s.revision);
  const { value, error, waiting } = useAnswer(
    () => mailroom.stampReport(stamp, { ids: [...ids] }, 'stamp'),
    `${JSON.stringify(stamp)} ${ids.length} ${ids[0]} ${ids.at(-1)} ${revision}`,
    80,
  );
  const opens = stamp.acts.filter(opensFirst);
  return (
    <section aria-label="What it would do" aria-busy={waiting} className={waiting ? 'quiet' : ''}>
      {error && <p className="border-l-4 border-error px-3 py-1.5">{error}</p>}
      {value?.whyNot && <p className="border-l-4 border-accent bg-base-200 px-3 py-1.5">{value.whyNot}</p>}
      {value && value.whyNot === null && (
        <>
          <p className="mb-1 font-semibold">Of {messages(value.of)} the Logbook would say:</p>
          <ol className="ml-5 list-decimal">
            {value.steps.map((step, n) => (
              <li key={n} className={step.count === 0 ? 'quiet' : ''}>
                {step.count === 0 ? `${step.did}: nothing to change` : step.did}
                {step.beyond && <span className="quiet"> (also others of their conversations)</span>}
              </li>
            ))}
            {opens.map((act, n) => (
              <li key={`opens ${n}`}>Then: {actionWords(act, setup)}</li>
            ))}
          </ol>
          <p className="mt-1 text-sm">
            {count(value.touched)} {value.touched === 1 ? 'message' : 'messages'} would change
            {value.beyond > 0 && `, ${count(value.beyond)} of them beyond what is chosen`}
            {value.sends > 0 &&
              `; ${messages(value.sends)} would be sent${value.to.length ? ` to ${value.to.join('; ')}` : ''}, which no Undo takes back`}
            .
          </p>
          {value.rows.length > 0 && (
            <ul className="mt-2 flex flex-col text-sm" aria-label="The newest of them">
              {value.rows.map((row) => (
                <li key={row.id} className="flex gap-2 border-t border-base-300 py-1">
                  <span className="w-36 shrink-0 truncate" dir="auto">
                    {row.from.name || row.from.address}
                  </span>
                  <Link
                    className="link min-w-0 flex-1 truncate"
                    dir="auto"
                    to={viewPath({ kind: 'place', place: row.place }, row.id)}
                  >
                    {row.subject || 'No subject'}
                  </Link>
                  <span className="quiet shrink-0">{placeName(row.place, setup.folders)}</span>
                </li>
              ))}
            </ul>
          )}
        </>
      )}
    </section>
  );
}
