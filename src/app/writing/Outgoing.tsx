import { SendHorizontal } from 'lucide-react';
import { messages } from '../../core/text/sentences';
import { mailroom } from '../../mailroom/client';
import { say } from '../state/desk';
import { refreshDrafts, takeBack, useDrafts } from '../state/drafts';
import { useNow } from '../ui/useNow';

/** Only what goes within this time is told at the edge, in milliseconds: what goes later stands in Drafts. */
const soon = 60_000;

/** More than these are told together: a stamp may send many. */
const mostSingle = 3;

/** Many that are about to go, taken back together. */
function Many({ ids, all }: { ids: readonly string[]; all: number }) {
  const takeAll = async () => {
    for (const id of ids) await mailroom.takeBackDraft(id);
    await refreshDrafts();
    say({ text: `${messages(ids.length)} did not go: they stand in Drafts.`, tone: 'done' });
  };
  return (
    <p
      role="status"
      aria-label="About to go"
      className="flex items-center gap-2 border-b border-base-300 bg-base-200 px-4 py-1 text-sm"
    >
      <SendHorizontal size={15} aria-hidden className="shrink-0" />
      <span className="flex-1">{messages(all)} are about to go.</span>
      <button className="btn btn-outline btn-xs" disabled={ids.length === 0} onClick={() => void takeAll()}>
        Take all back
      </button>
    </p>
  );
}

/** What is about to go, and can still be taken back. */
export function Outgoing() {
  const rows = useDrafts((s) => s.rows);
  const waiting = rows.some(({ due }) => due !== null);
  const now = useNow(waiting ? 500 : 60_000);
  const going = rows.filter(({ due }) => due !== null && due <= now + soon);
  if (going.length === 0) return null;
  if (going.length > mostSingle)
    return <Many ids={going.filter((row) => !row.going).map(({ id }) => id)} all={going.length} />;
  return (
    <ul role="status" aria-label="About to go" className="flex flex-col border-b border-base-300 bg-base-200">
      {going.map(({ id, subject, to, due, going: gone }) => {
        const seconds = Math.ceil(((due ?? now) - now) / 1_000);
        return (
          <li key={id} className="flex items-center gap-2 px-4 py-1 text-sm">
            <SendHorizontal size={15} aria-hidden className="shrink-0" />
            <span className="min-w-0 flex-1 truncate" dir="auto">
              “{subject || 'No subject'}” to {to || 'those in Cc and Bcc'}{' '}
              {/* The seconds are for the eye: read out, each would interrupt. */}
              <span aria-hidden>{gone || seconds <= 0 ? 'is on its way' : `goes in ${seconds} s`}</span>
            </span>
            <button className="btn btn-outline btn-xs" disabled={gone} onClick={() => void takeBack(id)}>
              Take back
            </button>
          </li>
        );
      })}
    </ul>
  );
}
