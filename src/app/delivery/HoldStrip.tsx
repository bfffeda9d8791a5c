import { Hand } from 'lucide-react';
import { Link, useLocation } from 'react-router';
import { messages } from '../../core/text/sentences';
import { dueWords, exactTime, shortTime } from '../../core/text/time';
import type { Overview } from '../../mailroom/border/overview';
import { mailroom } from '../../mailroom/client';
import { commandId, tellOutcome } from '../state/desk';
import { useNow } from '../ui/useNow';

const why = {
  quiet: 'It is quiet',
  timetable: 'Outside the hours of the timetable',
} as const;

/** Whether the hold is lifted. */
export const lift = async (): Promise<boolean> => tellOutcome(await mailroom.lift(commandId()));

/** What holds delivery back, since when, until when, and how many wait; nothing where nothing does. */
export function HoldStrip({ overview }: { overview: Overview }) {
  const { pathname } = useLocation();
  const now = useNow(30_000);
  const { by, until, waits } = overview.waiting;
  const { hold } = overview.setup.delivery;
  if (by === null) return null;
  const since =
    by === 'hold' && hold ? `Held since ${shortTime(hold.since, now)}` : why[by === 'quiet' ? by : 'timetable'];
  return (
    <div
      role="status"
      aria-label="Hold"
      className="barrier flex flex-wrap items-center gap-x-3 gap-y-1 border-b border-base-300 px-4 py-1.5 text-sm"
    >
      <Hand size={16} aria-hidden className="shrink-0" />
      <span>
        <strong>{since}</strong>
        {', until '}
        <span title={until === null ? undefined : exactTime(until)}>
          {until === null ? (by === 'hold' ? 'it is lifted' : 'further notice') : dueWords(until, now)}
        </span>
        {'. '}
        {waits === 0 ? 'Nothing waits.' : `${messages(waits)} wait${waits === 1 ? 's' : ''}.`}
      </span>
      <span className="ml-auto flex flex-wrap gap-2">
        {waits > 0 && pathname !== '/held' && (
          <Link className="btn btn-outline btn-xs" to="/held">
            Look at what waits
          </Link>
        )}
        {by === 'hold' ? (
          <button className="btn btn-primary btn-xs" onClick={() => void lift()}>
            Lift the hold
          </button>
        ) : (
          <Link className="btn btn-outline btn-xs" to="/delivery">
            When mail is delivered
          </Link>
        )}
      </span>
    </div>
  );
}
