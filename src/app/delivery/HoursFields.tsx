import { Plus } from 'lucide-react';
import { useState } from 'react';
import { cellMinutes, painted, type Timetable } from '../../core/delivery/timetable';
import { minutesOf, timeOfDay } from '../../core/delivery/week';
import { offeredDays } from './offeredDays';
import { DaysChoice } from './timePieces';

interface HoursFieldsProps {
  timetable: Timetable;
  onChange: (timetable: Timetable) => void;
}

const times = Array.from({ length: 49 }, (_, at) => timeOfDay(at * cellMinutes));

/** Hours by their beginning and end, for whoever does not paint. */
export function HoursFields({ timetable, onChange }: HoursFieldsProps) {
  const [days, setDays] = useState(1);
  const [from, setFrom] = useState('09:00');
  const [to, setTo] = useState('12:00');
  const wrong = minutesOf(from) >= minutesOf(to);
  const put = (open: boolean) => {
    let next = timetable;
    for (const day of offeredDays[days][1])
      next = painted(next, day, minutesOf(from) / cellMinutes, minutesOf(to) / cellMinutes - 1, open);
    onChange(next);
  };
  const choice = (label: string, value: string, list: readonly string[], set: (value: string) => void) => (
    <select
      className="select w-24 select-sm"
      aria-label={label}
      value={value}
      onChange={(event) => set(event.target.value)}
    >
      {list.map((one) => (
        <option key={one}>{one}</option>
      ))}
    </select>
  );
  return (
    <div className="flex flex-wrap items-center gap-2" role="group" aria-label="Hours by their beginning and end">
      <DaysChoice label="Days of the hours" value={days} onChange={setDays} />
      {choice('Hours from', from, times.slice(0, -1), setFrom)} to {choice('Hours to', to, times.slice(1), setTo)}
      <button type="button" className="btn btn-outline btn-xs" disabled={wrong} onClick={() => put(true)}>
        <Plus size={14} aria-hidden /> Mail comes
      </button>
      <button type="button" className="btn btn-ghost btn-xs" disabled={wrong} onClick={() => put(false)}>
        Mail waits
      </button>
    </div>
  );
}
