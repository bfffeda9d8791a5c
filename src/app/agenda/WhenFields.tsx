import { useState } from 'react';
import type { FoundDate } from '../../core/agenda/foundDates';
import type { Item } from '../../core/agenda/item';
import { timesWords } from '../../core/agenda/inviting';
import { isDay, type When } from '../../core/agenda/wallTime';
import { machineZone } from '../../core/delivery/week';
import { useNow } from '../ui/useNow';
import { usePart } from '../ui/usePart';
import { day, fitting, foundWhen, lastsOf, lengthTyped, readLength, timesOf, typedOf, whenOf } from './typedWhen';

// Reading of dates is large, and wanted only here.
const duePart = () => import('../../core/agenda/due');
const always = true;

interface WhenFieldsProps {
  item: Item;
  /** Days and hours that stand in the message. */
  dates: readonly FoundDate[];
  onChange: (part: Pick<Item, 'start' | 'end'>) => void;
  /** What is typed is no day or hour, in words; null where it is. */
  onWrong: (says: string | null) => void;
}

/** What is typed of a day and of a length, and what comes of it. */
function useTypedWhen({ item, onChange, onWrong }: Omit<WhenFieldsProps, 'dates'>) {
  const due = usePart(duePart, always);
  const now = useNow(30_000);
  const task = item.kind === 'task';
  const stands = task ? item.end : item.start;
  const [typed, setTyped] = useState(() => typedOf(stands));
  const [length, setLength] = useState(() => (task ? '' : lengthTyped(lastsOf(item))));
  const put = (at: When | null, lasts: number) => {
    onWrong(null);
    if (!task && at) setLength(lengthTyped(fitting(at, lasts)));
    onChange(timesOf(item, at, at ? fitting(at, lasts) : 0));
  };
  const read = (text: string) => {
    setTyped(text);
    if (!due) return;
    if (text.trim() === '') return task ? put(null, 0) : onWrong('Say when it begins.');
    // What stands there already may be past: only what is typed anew must not be.
    if (text === typedOf(stands)) return onWrong(null);
    const found = due.readDue(text, now);
    if (found.ok) put(whenOf(found.due, machineZone()), readLength(length) ?? lastsOf(item));
    else onWrong(found.error);
  };
  const readLong = (text: string) => {
    setLength(text);
    const long = readLength(text);
    const whole = stands !== null && isDay(stands);
    if (long === null || (whole && (long === 0 || long % day !== 0)))
      return onWrong(whole ? 'Whole days last days: 1 day, 3 days.' : 'Say how long it lasts: 45 min, 1.5 h.');
    onWrong(null);
    onChange(timesOf(item, stands, long));
  };
  const take = (date: FoundDate) => {
    const { at, lasts } = foundWhen(date, machineZone());
    setTyped(typedOf(at));
    put(at, lasts);
  };
  return { task, stands, typed, length, read, readLong, take };
}

/** When it is: dates as one types them, said back in words, and those that stand in the message. */
export function WhenFields({ item, dates, onChange, onWrong }: WhenFieldsProps) {
  const { task, stands, typed, length, read, readLong, take } = useTypedWhen({ item, onChange, onWrong });
  return (
    <div className="flex flex-col gap-1">
      <div className="flex flex-wrap gap-2">
        <label className="flex min-w-40 flex-1 flex-col text-sm">
          {task ? 'Due: fri 3pm, 3 Dec, or empty for no date' : 'Begins: fri 3pm, 3 Dec for the whole day'}
          <input
            className="input input-sm w-full"
            autoComplete="off"
            maxLength={100}
            value={typed}
            onChange={(event) => read(event.target.value)}
          />
        </label>
        {!task && (
          <label className="flex w-28 flex-col text-sm">
            Lasts
            <input
              className="input input-sm w-full"
              autoComplete="off"
              maxLength={30}
              value={length}
              onChange={(event) => readLong(event.target.value)}
            />
          </label>
        )}
      </div>
      <p className="quiet min-h-5 text-sm" aria-live="polite">
        {stands ? `${task ? 'Due ' : ''}${timesWords(stands, task ? null : item.end)}` : ''}
      </p>
      {dates.length > 0 && (
        <div className="flex flex-wrap items-center gap-1" role="group" aria-label="In the message">
          <span className="quiet text-sm">In the message:</span>
          {dates.slice(0, 6).map((date) => (
            <button
              key={`${date.start} ${date.end}`}
              type="button"
              className="btn h-auto min-h-6 py-0.5 font-normal btn-outline btn-xs"
              onClick={() => take(date)}
            >
              {date.text}
            </button>
          ))}
        </div>
      )}
    </div>
  );
}
