import { useState, type ReactNode } from 'react';
import { ageUnits, type ClearOut } from '../../core/clearout/clearOut';
import { parseEntry } from '../../core/senders/register';
import { kindNames, senderKinds, type SenderKind } from '../../core/senders/kind';
import { Switch } from '../ui/fields';
import { messages } from '../../core/text/sentences';

/** A sender as typed, as the Register reads it; null for anybody. What is not finished yet is nobody’s domain. */
function readSender(typed: string): ClearOut['from'] {
  if (typed.trim() === '') return null;
  const read = parseEntry(typed);
  return read.ok && (read.kind === 'address' || read.kind === 'domain')
    ? { by: read.kind, value: read.value }
    : { by: 'domain', value: typed.trim().slice(0, 500) };
}

const senderText = (from: ClearOut['from']): string => from?.value ?? '';

/** A whole number from a field; null where it says none that counts. */
function whole(typed: string, most: number): number | null {
  const n = Math.round(Number(typed));
  return typed.trim() === '' || !Number.isFinite(n) || n < 1 ? null : Math.min(n, most);
}

function Line({ name, children }: { name: string; children: ReactNode }) {
  return (
    <div className="grid grid-cols-[8.5rem_minmax(0,1fr)] items-center gap-2">
      <span className="text-sm">{name}</span>
      <div className="flex min-w-0 flex-wrap items-center gap-2">{children}</div>
    </div>
  );
}

/** One part of the choice. */
interface PartProps<K extends keyof ClearOut> {
  onChange: (value: ClearOut[K]) => void;
}

function OlderThan({ older, onChange }: PartProps<'older'> & Pick<ClearOut, 'older'>) {
  return (
    <Line name="Older than">
      <input
        type="number"
        min={1}
        max={1_000}
        className="input input-sm w-20"
        aria-label="Older than so many"
        placeholder="any"
        value={older?.n ?? ''}
        onChange={(event) => {
          const n = whole(event.target.value, 1_000);
          onChange(n === null ? null : { n, unit: older?.unit ?? 'months' });
        }}
      />
      <select
        className="select w-28 select-sm"
        aria-label="Days, weeks, months or years"
        value={older?.unit ?? 'months'}
        onChange={(event) => onChange({ n: older?.n ?? 6, unit: event.target.value as (typeof ageUnits)[number] })}
      >
        {ageUnits.map((unit) => (
          <option key={unit}>{unit}</option>
        ))}
      </select>
    </Line>
  );
}

function From({ from, onChange }: PartProps<'from'> & Pick<ClearOut, 'from'>) {
  const [sender, setSender] = useState({ typed: senderText(from), of: from });
  // Chosen elsewhere, as by a ready one: the field says so.
  if (JSON.stringify(sender.of) !== JSON.stringify(from)) setSender({ typed: senderText(from), of: from });
  return (
    <Line name="From">
      <input
        className="input input-sm w-full font-mono"
        aria-label="From"
        placeholder="anybody: an address or a domain"
        spellCheck={false}
        value={sender.typed}
        onChange={(event) => {
          const of = readSender(event.target.value);
          setSender({ typed: event.target.value, of });
          onChange(of);
        }}
      />
    </Line>
  );
}

/** What a clear-out chooses by. */
export function ClearOutFields({
  choice,
  onChange,
}: {
  choice: ClearOut;
  onChange: (some: Partial<ClearOut>) => void;
}) {
  return (
    <div className="flex flex-col gap-2">
      <OlderThan older={choice.older} onChange={(older) => onChange({ older })} />
      <Line name="State">
        <select
          className="select w-full select-sm"
          aria-label="State"
          value={choice.state}
          onChange={(event) => onChange({ state: event.target.value as ClearOut['state'] })}
        >
          <option value="any">read or unread</option>
          <option value="read">read</option>
          <option value="unread">unread</option>
        </select>
      </Line>
      <From from={choice.from} onChange={(from) => onChange({ from })} />
      <Line name="Kind">
        <select
          className="select w-full select-sm"
          aria-label="Kind"
          value={choice.kind ?? ''}
          onChange={(event) => onChange({ kind: (event.target.value || null) as SenderKind | null })}
        >
          <option value="">any</option>
          {senderKinds.map((kind) => (
            <option key={kind} value={kind}>
              {kindNames[kind].toLowerCase()}
            </option>
          ))}
        </select>
      </Line>
      <Line name="Larger than">
        <input
          type="number"
          min={1}
          className="input input-sm w-28"
          aria-label="Larger than, in KB"
          placeholder="any"
          value={choice.larger === null ? '' : choice.larger / 1_000}
          onChange={(event) => {
            const kilobytes = whole(event.target.value, 10_000_000);
            onChange({ larger: kilobytes === null ? null : kilobytes * 1_000 });
          }}
        />
        KB
      </Line>
      <Line name="But the newest">
        <input
          type="number"
          min={0}
          className="input input-sm w-28"
          aria-label="Keep the newest"
          placeholder="none"
          value={choice.keepNewest || ''}
          onChange={(event) => onChange({ keepNewest: whole(event.target.value, 10_000_000) ?? 0 })}
        />
        stay
      </Line>
      {choice.keep.length > 0 && (
        <Line name="But the ticked">
          <span className="text-sm">{messages(choice.keep.length)} that you ticked stay.</span>
          <button type="button" className="btn btn-ghost btn-xs" onClick={() => onChange({ keep: [] })}>
            Let them go, too
          </button>
        </Line>
      )}
      <Switch word="Only silenced conversations" on={choice.silenced} onChange={(silenced) => onChange({ silenced })} />
      <Switch
        word="Only what is said whole again in a later message"
        what="Looks into all texts: with much mail it takes a while. What is unread stays."
        on={choice.redundant}
        onChange={(redundant) => onChange({ redundant })}
      />
    </div>
  );
}
