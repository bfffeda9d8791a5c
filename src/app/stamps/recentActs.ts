// What was just done to one message, act by act: from it a stamp can be made.
import { create } from 'zustand';
import { dueDays } from '../../core/agenda/dueDays';
import { putOffTimes } from '../../core/agenda/putOffTimes';
import type { Action } from '../../core/effects/effects';
import type { Act, Selection } from '../../mailroom/border/views';

interface RecentState {
  /** The messages to which it was done, by their numbers. */
  of: string;
  acts: readonly Action[];
}

export const useRecentActs = create<RecentState>(() => ({ of: '', acts: [] }));

/** So many acts are kept in mind. */
const most = 10;
const day = 86_400_000;

/** For which day a flag was set, as a stamp would say it: the nearest of those that it knows. */
function dueOf(due: number | undefined, now: number): Extract<Action, { do: 'flag' }>['due'] {
  if (due === undefined) return 'none';
  const days = (due - now) / day;
  return days < 1 ? dueDays[0] : days < 2 ? dueDays[1] : days < 6 ? dueDays[2] : dueDays[3];
}

/** An act as a stamp would do it; null for one that no stamp does. */
function stampAct(act: Act, now: number): Action | null {
  switch (act.do) {
    case 'move':
      return { do: 'move', place: act.place };
    case 'tray':
      return act.tray === null ? null : { do: 'tray', tray: act.tray };
    case 'label':
      return { do: act.value ? 'label' : 'unlabel', label: act.label };
    case 'read':
      return act.opened ? null : { do: act.value ? 'read' : 'unread' };
    case 'flag':
      return act.value ? { do: 'flag', due: dueOf(act.due, now) } : null;
    case 'done':
      return { do: 'done' };
    case 'silence':
      return act.value ? { do: 'silence', place: act.place } : null;
    case 'putOff':
      return {
        do: 'putOff',
        until: act.until - now < day / 2 ? putOffTimes[0] : act.until - now < 2 * day ? putOffTimes[1] : putOffTimes[2],
      };
    default:
      return null;
  }
}

/** Keeps an act in mind that was done. What is done to other messages begins anew. */
export function noteAct(selection: Selection, act: Act): void {
  const done = stampAct(act, Date.now());
  if (!done || !('ids' in selection)) return;
  const of = [...selection.ids].sort((a, b) => a - b).join();
  const { of: before, acts } = useRecentActs.getState();
  const earlier = of === before ? acts : [];
  const same = (one: Action) => one.do === done.do && JSON.stringify(one) === JSON.stringify(done);
  useRecentActs.setState({ of, acts: [...earlier.filter((one) => !same(one)), done].slice(-most) });
}
