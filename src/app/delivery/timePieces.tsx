// Pieces of settings that set hours: days chosen together, a time of day, and one that is set and can be taken off.
import { X } from 'lucide-react';
import type { ReactNode } from 'react';
import { offeredDays } from './offeredDays';

interface DaysChoiceProps {
  label: string;
  /** Which of {@link offeredDays}. */
  value: number;
  onChange: (value: number) => void;
}

/** Days of the week for which something is set at once. */
export function DaysChoice({ label, value, onChange }: DaysChoiceProps) {
  return (
    <select
      className="select w-44 select-sm"
      aria-label={label}
      value={value}
      onChange={(event) => onChange(Number(event.target.value))}
    >
      {offeredDays.map(([words], at) => (
        <option key={words} value={at}>
          {words}
        </option>
      ))}
    </select>
  );
}

interface TimeFieldProps {
  label: string;
  value: string;
  onChange: (value: string) => void;
}

/** A time of day; empty while it is none. */
export function TimeField({ label, value, onChange }: TimeFieldProps) {
  return (
    <input
      type="time"
      className="input w-28 input-sm"
      aria-label={label}
      value={value}
      onChange={(event) => onChange(event.target.value)}
    />
  );
}

interface SetTimeProps {
  /** The time of day that is set. */
  at: string;
  /** What stands behind it: on which days. */
  children?: ReactNode;
  onRemove: () => void;
}

/** A time of day that is set, and its taking off. */
export function SetTime({ at, children, onRemove }: SetTimeProps) {
  return (
    <li className="flex items-center gap-1 rounded border border-base-300 pl-2">
      <span className="tabular-nums">{at}</span>
      {children}
      <button type="button" className="btn btn-square btn-ghost btn-xs" aria-label={`Not at ${at}`} onClick={onRemove}>
        <X size={13} />
      </button>
    </li>
  );
}
