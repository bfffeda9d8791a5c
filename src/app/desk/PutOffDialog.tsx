import type { Act, Selection } from '../../mailroom/border/views';
import { mailroom } from '../../mailroom/client';
import { commandId, runAct, tellOutcome } from '../state/desk';
import { useMailbox } from '../state/overview';
import { Dialog } from '../ui/Dialog';
import { OfferedMoments } from './OfferedMoments';

const clockHour = (hour: number) => `${String(hour).padStart(2, '0')}:00`;
const hours = Array.from({ length: 24 }, (_, hour) => hour);

interface Props {
  selection: Selection;
  onClose: () => void;
  /** Carries it out, and opens what comes next; without it the message that is open stays. */
  onPutOff?: (putOff: () => Promise<boolean>) => void;
}

/** Put off until when? A moment that is offered, or a typed one. */
export function PutOffDialog({ selection, onClose, onPutOff }: Props) {
  const delivery = useMailbox((s) => s.overview?.setup.delivery);
  if (!delivery) return null;
  const { morning } = delivery;
  const until = (at: number) => {
    onClose();
    const act: Act = { do: 'putOff', until: at };
    if (onPutOff) onPutOff(() => runAct(selection, act));
    else void runAct(selection, act);
  };
  const setMorning = async (hour: number) => {
    const edit = { list: 'delivery' as const, id: 'delivery' as const, item: { ...delivery, morning: hour } };
    tellOutcome(await mailroom.editSetup(commandId(), [edit], `Set that mornings begin at ${clockHour(hour)}`, false));
  };
  return (
    <Dialog title="Put off until" onClose={onClose}>
      <OfferedMoments id="put-off-typed" word="Put off" onTake={until} />
      <p className="quiet mt-3 text-sm">
        It waits in Held, and comes back on top of the Inbox; an answer that comes earlier brings it back.
      </p>
      <label className="mt-2 flex items-center gap-2 text-sm">
        A morning begins at
        <select
          className="select w-24 select-sm"
          value={morning}
          onChange={(event) => void setMorning(Number(event.target.value))}
        >
          {hours.map((hour) => (
            <option key={hour} value={hour}>
              {clockHour(hour)}
            </option>
          ))}
        </select>
      </label>
    </Dialog>
  );
}
