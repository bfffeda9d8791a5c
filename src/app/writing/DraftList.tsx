import { SquarePen } from 'lucide-react';
import { useMailbox } from '../state/overview';
import { openDraft, takeBack, throwAwayDraft, useDrafts } from '../state/drafts';
import { count } from '../../core/text/sentences';
import { dueWords, exactTime } from '../../core/text/time';
import { useNow } from '../ui/useNow';

/** The drafts that are written here: they stand in Drafts, above what came with the mail. */
export function DraftList() {
  const rows = useDrafts((s) => s.rows);
  const open = useDrafts((s) => s.open);
  const office = useMailbox((s) => s.overview?.post.on === true);
  const now = useNow(15_000);
  if (rows.length === 0) return null;
  return (
    <section aria-label="Drafts" className="border-b-2 border-base-300">
      <h2 className="quiet px-4 pt-2 text-sm font-semibold">
        {rows.length === 1 ? '1 draft' : `${count(rows.length)} drafts`}
      </h2>
      <ul className="max-h-[40vh] overflow-y-auto">
        {rows.map(({ id, to, subject, words, at, due, going, error }) => (
          <li
            key={id}
            className={`flex items-center gap-2 border-b border-base-300 px-4 py-1.5 ${open === id ? 'bg-base-300' : ''}`}
          >
            <SquarePen size={16} aria-hidden className="shrink-0" />
            <button
              className="min-w-0 flex-1 text-left disabled:cursor-default"
              disabled={due !== null}
              aria-current={open === id ? 'true' : undefined}
              onClick={() => openDraft(id)}
            >
              <span className="block truncate font-semibold" dir="auto">
                To {to || 'nobody yet'} · {subject || 'No subject'}
              </span>
              <span className={`block truncate text-sm ${error ? 'text-error' : 'quiet'}`}>
                {error
                  ? `Not sent: ${error}`
                  : due !== null
                    ? going
                      ? 'On its way'
                      : `Goes ${dueWords(due, now)}`
                    : exactTime(at)}{' '}
                · {words || 'Nothing typed yet'}
              </span>
            </button>
            {due !== null ? (
              <button className="btn btn-ghost btn-xs" disabled={going} onClick={() => void takeBack(id)}>
                Take back
              </button>
            ) : (
              <button
                className="btn btn-ghost btn-xs"
                onClick={() => void throwAwayDraft(id, to, true)}
                aria-label={`Throw away the draft to ${to || 'nobody yet'}`}
              >
                Throw away
              </button>
            )}
          </li>
        ))}
      </ul>
      {!office && (
        <p className="quiet px-4 py-1 text-xs">Nothing is sent from here: open one, and save it as a file.</p>
      )}
    </section>
  );
}
