import type { Act, Selection } from '../../mailroom/border/views';
import { mailroom } from '../../mailroom/client';
import { commandId, runAct, tellOutcome } from '../state/desk';
import { useMailbox } from '../state/overview';
import { Dialog } from '../ui/Dialog';
import { dueWords } from '../../core/text/time';
import { useNow } from '../ui/useNow';
import { TypedMoment } from './TypedMoment';
import { usePart } from '../ui/usePart';
import { putOffTimes } from '../../core/agenda/putOffTimes';

// Reading of dates is large, and wanted only here.
const putOffPart = () => import('../../core/delivery/putOff');
const always = true;

const words = {
  'later today': 'Later today',
  'tomorrow morning': 'Tomorrow morning',
  'next week': 'Next week',
} as const;
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
  const putOff = usePart(putOffPart, always);
  const delivery = useMailbox((s) => s.overview?.setup.delivery);
  const zone = useMailbox((s) => s.overview?.waiting.zone);
  const now = useNow(30_000);
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
      <TypedMoment
        id="put-off-typed"
        word="Put off"
        now={now}
        read={putOff ? (typed) => putOff.readPutOff(typed, now, morning, zone) : null}
        onTake={until}
      />
      <ul className="flex flex-col gap-1">
        {putOff &&
          putOffTimes.map((time) => {
            const at = putOff.putOffTo(time, now, morning, zone);
            return (
              at !== null && (
                <li key={time}>
                  <button className="btn w-full justify-start btn-ghost btn-sm" onClick={() => until(at)}>
                    {words[time]} <span className="quiet font-normal">{dueWords(at, now)}</span>
                  </button>
                </li>
              )
            );
          })}
      </ul>
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
