import { Plus } from 'lucide-react';
import { useState } from 'react';
import { daysWords } from '../../core/delivery/rounds';
import { withTime, type Timetable } from '../../core/delivery/timetable';
import { offeredDays } from './offeredDays';
import { DaysChoice, SetTime, TimeField } from './timePieces';

interface FixedTimesProps {
  timetable: Timetable;
  onChange: (timetable: Timetable) => void;
}

/** Fixed times at which all that waits is delivered. */
export function FixedTimes({ timetable, onChange }: FixedTimesProps) {
  const [time, setTime] = useState('09:00');
  const [days, setDays] = useState(0);
  const times = [...new Set(timetable.times.map(({ at }) => at))].sort();
  return (
    <fieldset className="flex flex-col gap-2">
      <legend className="mb-1 font-semibold">Fixed times of delivery</legend>
      <ul className="flex flex-wrap gap-2">
        {times.map((at) => {
          const on = timetable.times.filter((one) => one.at === at).map(({ day }) => day);
          return (
            <SetTime
              key={at}
              at={at}
              onRemove={() => onChange({ ...timetable, times: timetable.times.filter((one) => one.at !== at) })}
            >
              <span className="quiet text-sm">{daysWords(on)}</span>
            </SetTime>
          );
        })}
      </ul>
      <div className="flex flex-wrap items-center gap-2">
        <TimeField label="Time of delivery" value={time} onChange={setTime} />
        <DaysChoice label="On which days" value={days} onChange={setDays} />
        <button
          type="button"
          className="btn btn-outline btn-xs"
          disabled={!time}
          onClick={() => onChange(withTime(timetable, offeredDays[days][1], time))}
        >
          <Plus size={14} aria-hidden /> Fixed time
        </button>
      </div>
    </fieldset>
  );
}
