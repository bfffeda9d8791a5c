import { useState } from 'react';
import type { TypedDue } from '../../core/agenda/due';
import type { Act, Selection } from '../../mailroom/border/views';
import { runAct } from '../state/desk';
import { Dialog } from '../ui/Dialog';
import { dueWords } from '../../core/text/time';
import { useNow } from '../ui/useNow';
import { Form } from '../ui/Form';
import { usePart } from '../ui/usePart';

// Reading of dates is large, and wanted only here.
const duePart = () => import('../../core/agenda/due');
const always = true;

const dayWords = { today: 'Today', tomorrow: 'Tomorrow', 'this week': 'This week', 'next week': 'Next week' } as const;

/** Due when? A flag with a date, typed or picked, without one, or done. */
export function DueDialog({ selection, onClose }: { selection: Selection; onClose: () => void }) {
  const due = usePart(duePart, always);
  const [typed, setTyped] = useState('');
  const now = useNow(30_000);
  const read: TypedDue | null = due && typed.trim() ? due.readDue(typed, now) : null;
  const run = (act: Act) => {
    onClose();
    void runAct(selection, act);
  };
  const flag = (at?: number) => run({ do: 'flag', value: true, ...(at ? { due: at } : {}) });
  return (
    <Dialog title="Flag for" onClose={onClose}>
      <Form
        className="mb-3 flex flex-col gap-1"
        onSubmit={() => {
          if (read?.ok) flag(read.due);
        }}
      >
        <label htmlFor="due-typed" className="text-sm">
          Type a date: fri 3pm, 3 Dec, in two weeks
        </label>
        <div className="flex gap-2">
          <input
            id="due-typed"
            className="input flex-1"
            autoFocus
            autoComplete="off"
            maxLength={100}
            value={typed}
            onChange={(event) => setTyped(event.target.value)}
          />
          <button className="btn btn-primary" disabled={!read?.ok}>
            Flag
          </button>
        </div>
        <p className={`min-h-5 text-sm ${read && !read.ok ? 'text-error' : 'quiet'}`} aria-live="polite">
          {read ? (read.ok ? dueWords(read.due, now) : read.error) : ''}
        </p>
      </Form>
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
