import { useMailbox } from '../state/overview';
import { Dialog } from '../ui/Dialog';
import { dueWords } from '../../core/text/time';
import { useNow } from '../ui/useNow';
import { usePart } from '../ui/usePart';
import { putOffTimes } from '../../core/agenda/putOffTimes';
import { TypedMoment } from '../desk/TypedMoment';

// Reading of dates is large, and wanted only here.
const putOffPart = () => import('../../core/delivery/putOff');
const always = true;

const words = {
  'later today': 'Later today',
  'tomorrow morning': 'Tomorrow morning',
  'next week': 'Next week',
} as const;

/** When is it to go? A moment that is offered, or a typed one. */
export function SendLater({ onClose, onTake }: { onClose: () => void; onTake: (at: number) => void }) {
  const putOff = usePart(putOffPart, always);
  const morning = useMailbox((s) => s.overview?.setup.delivery.morning ?? 8);
  const zone = useMailbox((s) => s.overview?.waiting.zone);
  const now = useNow(30_000);
  const take = (at: number) => {
    onClose();
    onTake(at);
  };
  return (
    <Dialog title="Send later" onClose={onClose}>
      <TypedMoment
        id="send-later-typed"
        word="Send then"
        now={now}
        read={putOff ? (typed) => putOff.readPutOff(typed, now, morning, zone) : null}
        onTake={take}
      />
      <ul className="flex flex-col gap-1">
        {putOff &&
          putOffTimes.map((time) => {
            const at = putOff.putOffTo(time, now, morning, zone);
            return (
              at !== null && (
                <li key={time}>
                  <button className="btn w-full justify-start btn-ghost btn-sm" onClick={() => take(at)}>
                    {words[time]} <span className="quiet font-normal">{dueWords(at, now)}</span>
                  </button>
                </li>
              )
            );
          })}
      </ul>
      <p className="quiet mt-3 text-sm">
        Until then it stands in Drafts and can be taken back. It goes while Wide Sort is open in some tab: where none
        is, as soon as one is opened again.
      </p>
    </Dialog>
  );
}
