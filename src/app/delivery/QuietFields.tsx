import { Plus, X } from 'lucide-react';
import { useState } from 'react';
import type { Quiet } from '../../core/delivery/settings';
import { exactTime } from '../../core/text/time';
import { usePart } from '../ui/usePart';
import { useNow } from '../ui/useNow';

const readingPart = () => import('../../core/delivery/putOff');
const always = true;

interface QuietFieldsProps {
  quiet: readonly Quiet[];
  zone: string;
  onChange: (quiet: Quiet[]) => void;
}

interface MomentProps {
  label: string;
  hint: string;
  value: string;
  onChange: (value: string) => void;
}

/** A moment as one types it. */
function Moment({ label, hint, value, onChange }: MomentProps) {
  return (
    <input
      className="input w-40 input-sm"
      aria-label={label}
      placeholder={hint}
      maxLength={100}
      value={value}
      onChange={(event) => onChange(event.target.value)}
    />
  );
}

/** Single periods in which nothing is delivered: “today 13:00” to “today 15:00”. */
export function QuietFields({ quiet, zone, onChange }: QuietFieldsProps) {
  const now = useNow(30_000);
  const reading = usePart(readingPart, always);
  const [from, setFrom] = useState('');
  const [until, setUntil] = useState('');
  const read = (typed: string) => (reading && typed.trim() ? reading.readPutOff(typed, now, 0, zone) : null);
  const [begins, ends] = [read(from), read(until)];
  const both = begins?.ok && ends?.ok ? { from: begins.at, until: ends.at } : null;
  const trouble =
    [begins, ends].map((one) => (one && !one.ok ? one.error : null)).find((error) => error !== null) ??
    (both && both.from >= both.until ? 'It must end after it begins.' : null);
  const coming = quiet.filter((one) => one.until > now);
  return (
    <fieldset className="flex flex-col gap-2">
      <legend className="mb-1 font-semibold">Single periods of quiet</legend>
      <ul className="flex flex-col gap-1">
        {coming.map((one) => (
          <li key={`${one.from} ${one.until}`} className="flex items-center gap-2 text-sm tabular-nums">
            {exactTime(one.from)} to {exactTime(one.until)}
            <button
              type="button"
              className="btn btn-square btn-ghost btn-xs"
              aria-label={`No quiet from ${exactTime(one.from)}`}
              onClick={() => onChange(coming.filter((other) => other !== one))}
            >
              <X size={13} />
            </button>
          </li>
        ))}
      </ul>
      <div className="flex flex-wrap items-center gap-2">
        <Moment label="Quiet from" hint="today 13:00" value={from} onChange={setFrom} />
        to
        <Moment label="Quiet until" hint="today 15:00" value={until} onChange={setUntil} />
        <button
          type="button"
          className="btn btn-outline btn-xs"
          disabled={!both || trouble !== null}
          onClick={() => {
            if (!both) return;
            onChange([...coming, both].sort((a, b) => a.from - b.from));
            setFrom('');
            setUntil('');
          }}
        >
          <Plus size={14} aria-hidden /> Quiet
        </button>
      </div>
      <p className={`min-h-5 text-sm ${trouble ? 'text-error' : 'quiet'}`} aria-live="polite">
        {trouble ?? (both ? `${exactTime(both.from)} to ${exactTime(both.until)}` : '')}
      </p>
    </fieldset>
  );
}
