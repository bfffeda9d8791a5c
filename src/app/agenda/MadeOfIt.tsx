import { CalendarPlus, ListPlus } from 'lucide-react';
import { mailroom } from '../../mailroom/client';
import { useMailbox } from '../state/overview';
import { useAnswer } from '../ui/useAnswer';
import { openItem, reopenItem } from './itemDraft';

/** A message becomes a task or an appointment, or is kept with some already. */
export function MadeOfIt({ id }: { id: number }) {
  const revision = useMailbox((s) => s.revision);
  const { value } = useAnswer(() => mailroom.madeOf(id), `${id} ${revision}`);
  return (
    <>
      <button
        className="btn btn-ghost btn-xs"
        data-key="task"
        title="Make a task of it (Shift+K)"
        onClick={() => void openItem('task', [id])}
      >
        <ListPlus size={14} aria-hidden /> Task
      </button>
      <button
        className="btn btn-ghost btn-xs"
        data-key="appointment"
        title="Make an appointment of it (Shift+A)"
        onClick={() => void openItem('appointment', [id])}
      >
        <CalendarPlus size={14} aria-hidden /> Appointment
      </button>
      {value?.map(({ uid, kind, title }) => (
        <button key={uid} className="link text-sm" onClick={() => void reopenItem(uid)}>
          {kind === 'task' ? 'Task' : 'Appointment'}: {title}
        </button>
      ))}
    </>
  );
}
