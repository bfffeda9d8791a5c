import { Plus } from 'lucide-react';
import { useState } from 'react';
import { weekdayNames, type Round } from '../../core/delivery/rounds';
import { weekdays } from '../../core/delivery/week';
import { SetTime, TimeField } from '../delivery/timePieces';
import { Choice } from '../ui/fields';

interface RoundFieldsProps {
  round: Round;
  onChange: (round: Round) => void;
}

const kinds = [
  ['coming', 'As mail comes', 'one row, at once'],
  ['hours', 'At given hours', 'of some days of the week'],
  ['never', 'Never by itself', 'it is looked into'],
] as const;

/** When a tray is delivered. */
export function RoundFields({ round, onChange }: RoundFieldsProps) {
  const [time, setTime] = useState('09:00');
  return (
    <Choice
      legend="Delivered"
      value={round.by}
      options={kinds}
      onChange={(by) => onChange(by === 'hours' ? { by, days: ['MO'], times: ['07:00'] } : { by })}
    >
      {round.by === 'hours' && (
        <div className="mt-2 flex flex-col gap-2 border-l-2 border-primary pl-3">
          <div className="flex flex-wrap gap-x-4 gap-y-1" role="group" aria-label="Days">
            {weekdays.map((day) => (
              <label key={day} className="flex items-center gap-1.5">
                <input
                  type="checkbox"
                  className="checkbox checkbox-xs"
                  checked={round.days.includes(day)}
                  onChange={(event) =>
                    onChange({
                      ...round,
                      days: weekdays.filter((one) => (one === day ? event.target.checked : round.days.includes(one))),
                    })
                  }
                />
                {weekdayNames[day]}
              </label>
            ))}
          </div>
          <div className="flex flex-wrap items-center gap-2" role="group" aria-label="Hours">
            <ul className="contents">
              {round.times.map((one) => (
                <SetTime
                  key={one}
                  at={one}
                  onRemove={() => onChange({ ...round, times: round.times.filter((other) => other !== one) })}
                />
              ))}
            </ul>
            <TimeField label="Another hour" value={time} onChange={setTime} />
            <button
              type="button"
              className="btn btn-outline btn-xs"
              disabled={!time || round.times.includes(time)}
              onClick={() => onChange({ ...round, times: [...round.times, time].sort() })}
            >
              <Plus size={14} aria-hidden /> Hour
            </button>
          </div>
        </div>
      )}
    </Choice>
  );
}
