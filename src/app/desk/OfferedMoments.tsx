import { putOffTimes } from '../../core/agenda/putOffTimes';
import { dueWords } from '../../core/text/time';
import { useMailbox } from '../state/overview';
import { useNow } from '../ui/useNow';
import { usePart } from '../ui/usePart';
import { TypedMoment } from './TypedMoment';

// Reading of dates is large, and wanted only here.
const putOffPart = () => import('../../core/delivery/putOff');
const always = true;

const words = {
  'later today': 'Later today',
  'tomorrow morning': 'Tomorrow morning',
  'next week': 'Next week',
} as const;

interface Props {
  /** Of the field in which a moment is typed. */
  id: string;
  /** The word of its button. */
  word: string;
  /** Milliseconds since 1970. */
  onTake: (at: number) => void;
}

/** A moment to come: typed, or one of those that are offered, in the person’s time zone. */
export function OfferedMoments({ id, word, onTake }: Props) {
  const putOff = usePart(putOffPart, always);
  const morning = useMailbox((s) => s.overview?.setup.delivery.morning);
  const zone = useMailbox((s) => s.overview?.waiting.zone);
  const now = useNow(30_000);
  if (morning === undefined) return null;
  return (
    <>
      <TypedMoment
        id={id}
        word={word}
        now={now}
        read={putOff ? (typed) => putOff.readPutOff(typed, now, morning, zone) : null}
        onTake={onTake}
      />
      <ul className="flex flex-col gap-1">
        {putOff &&
          putOffTimes.map((time) => {
            const at = putOff.putOffTo(time, now, morning, zone);
            return (
              at !== null && (
                <li key={time}>
                  <button className="btn w-full justify-start btn-ghost btn-sm" onClick={() => onTake(at)}>
                    {words[time]} <span className="quiet font-normal">{dueWords(at, now)}</span>
                  </button>
                </li>
              )
            );
          })}
      </ul>
    </>
  );
}
