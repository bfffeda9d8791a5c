import type { Act, Selection } from '../../mailroom/border/views';
import { runAct } from '../state/desk';
import { Dialog } from '../ui/Dialog';
import { dueWords } from '../../core/text/time';
import { useNow } from '../ui/useNow';
import { TypedMoment } from './TypedMoment';
import { usePart } from '../ui/usePart';

// Reading of dates is large, and wanted only here.
const duePart = () => import('../../core/agenda/due');
const always = true;

const dayWords = { today: 'Today', tomorrow: 'Tomorrow', 'this week': 'This week', 'next week': 'Next week' } as const;

/** Due when? A flag with a date, typed or picked, without one, or done. */
export function DueDialog({ selection, onClose }: { selection: Selection; onClose: () => void }) {
  const due = usePart(duePart, always);
  const now = useNow(30_000);
  const run = (act: Act) => {
    onClose();
    void runAct(selection, act);
  };
  const flag = (at?: number) => run({ do: 'flag', value: true, ...(at ? { due: at } : {}) });
  const readDue = (typed: string) => {
    const read = due?.readDue(typed, now);
    return read?.ok ? { ok: true as const, at: read.due } : { ok: false as const, error: read?.error ?? '' };
  };
  return (
    <Dialog title="Flag for" onClose={onClose}>
      <TypedMoment id="due-typed" word="Flag" now={now} read={due ? readDue : null} onTake={flag} />
      <ul className="flex flex-col gap-1">
        {due?.dueDays.map((day) => {
          const at = due.dueOn(day, now);
          return (
            <li key={day}>
              <button className="btn w-full justify-start btn-ghost btn-sm" onClick={() => flag(at)}>
                {dayWords[day]} <span className="quiet font-normal">{dueWords(at, now)}</span>
              </button>
            </li>
          );
        })}
        <li>
          <button className="btn w-full justify-start btn-ghost btn-sm" onClick={() => flag()}>
            No date
          </button>
        </li>
        <li>
          <button className="btn w-full justify-start btn-ghost btn-sm" onClick={() => run({ do: 'done' })}>
            Done <span className="quiet font-normal">the flag comes off, and that it was done stays</span>
          </button>
        </li>
      </ul>
    </Dialog>
  );
}
