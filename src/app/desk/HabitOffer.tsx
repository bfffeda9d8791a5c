import { X } from 'lucide-react';
import { Link } from 'react-router';
import type { Setup } from '../../core/line/setup';
import { leaveHabit, useDesk } from '../state/desk';
import { prefer } from '../state/preferences';
import { placePath } from '../ui/naming';
import { messages } from '../../core/text/sentences';

/** An offer, made once: what the person keeps moving by hand, a rule can move. */
export function HabitOffer({ setup }: { setup: Setup }) {
  const habit = useDesk((s) => s.habit);
  if (!habit) return null;
  const place = placePath(habit.place, setup);
  return (
    <aside
      aria-label="An offer"
      className="flex flex-wrap items-center gap-x-3 gap-y-1 border-t border-base-300 bg-base-200 px-4 py-1.5 text-sm"
    >
      <span role="status">
        You moved {messages(habit.count)} from {habit.of} to {place} by hand. A rule can do that from now on.
      </span>
      <Link className="btn btn-primary btn-xs" to={`/rules/new?from=${habit.id}`} onClick={leaveHabit}>
        Sort mail like this
      </Link>
      <button
        className="btn btn-ghost btn-xs"
        onClick={() => {
          prefer({ offers: false });
          leaveHabit();
        }}
        title="It can be turned on again in The desk"
      >
        Never offer this
      </button>
      <button className="btn btn-square btn-ghost btn-xs" aria-label="Not now" title="Not now" onClick={leaveHabit}>
        <X size={14} />
      </button>
    </aside>
  );
}
