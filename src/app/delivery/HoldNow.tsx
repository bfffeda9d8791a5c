import { Hand } from 'lucide-react';
import { useState } from 'react';
import type { Overview } from '../../mailroom/border/overview';
import type { DeliveryReportResult } from '../../mailroom/border/trays';
import { mailroom } from '../../mailroom/client';
import { dueWords } from '../../core/text/time';
import { TypedMoment } from '../desk/TypedMoment';
import { commandId, tellOutcome } from '../state/desk';
import { useMailbox } from '../state/overview';
import { useAnswer } from '../ui/useAnswer';
import { useNow } from '../ui/useNow';
import { usePart } from '../ui/usePart';
import { DeliveryDryRun } from './DeliveryDryRun';
import { lift } from './HoldStrip';

// Reading of dates is large, and wanted only here.
const putOffPart = () => import('../../core/delivery/putOff');
const always = true;
const hour = 3_600_000;

const hold = async (until: number | null) => tellOutcome(await mailroom.hold(commandId(), until));

interface HoldNowProps {
  overview: Overview;
}

/** The hold: put on until a moment, or until it is lifted. */
export function HoldNow({ overview }: HoldNowProps) {
  const reading = usePart(putOffPart, always);
  const now = useNow(30_000);
  const [typing, setTyping] = useState(false);
  const { delivery } = overview.setup;
  const { zone } = overview.waiting;
  const morning = reading?.putOffTo('tomorrow morning', now, delivery.morning, zone) ?? null;
  const on = delivery.hold !== null;
  return (
    <section aria-labelledby="hold-now" className="flex flex-col gap-3">
      <h2 id="hold-now" className="text-lg font-semibold">
        Hold now
      </h2>
      <p className="max-w-prose text-sm">
        Nothing that comes is delivered to the Inbox, but for what is let through. It waits in Held, where it can be
        looked at, and comes all at once when the hold ends.
      </p>
      <div className="flex flex-wrap gap-2" role="group" aria-label={on ? 'Hold until' : 'Hold for'}>
        <button type="button" className="btn btn-outline btn-sm" onClick={() => void hold(now + hour)}>
          <Hand size={15} aria-hidden /> An hour
        </button>
        <button type="button" className="btn btn-outline btn-sm" onClick={() => void hold(now + 2 * hour)}>
          Two hours
        </button>
        {morning !== null && (
          <button type="button" className="btn btn-outline btn-sm" onClick={() => void hold(morning)}>
            Until {dueWords(morning, now)}
          </button>
        )}
        <button type="button" className="btn btn-outline btn-sm" onClick={() => void hold(null)}>
          Until lifted
        </button>
        <button
          type="button"
          className="btn btn-ghost btn-sm"
          aria-expanded={typing}
          onClick={() => setTyping(!typing)}
        >
          Until …
        </button>
        {on && (
          <button type="button" className="btn btn-primary btn-sm" onClick={() => void lift()}>
            Lift the hold
          </button>
        )}
      </div>
      {typing && (
        <div className="max-w-sm">
          <TypedMoment
            id="hold-until"
            word="Hold"
            now={now}
            read={reading ? (typed) => reading.readPutOff(typed, now, delivery.morning, zone) : null}
            onTake={(at) => {
              setTyping(false);
              void hold(at);
            }}
          />
        </div>
      )}
      <HoldTried />
    </section>
  );
}

const lengths = [
  [1, 'an hour'],
  [2, 'two hours'],
  [24, 'a day'],
] as const;

/** What a hold at this time of the week would have held back in the last weeks. */
function HoldTried() {
  const revision = useMailbox((s) => s.revision);
  const [hours, setHours] = useState(1);
  const [open, setOpen] = useState(false);
  const answer = useAnswer(
    async (): Promise<DeliveryReportResult> =>
      open
        ? { ok: true, report: await mailroom.holdDryRun(hours * hour) }
        : { ok: false, error: 'It is not looked at.' },
    open ? `${hours} ${revision}` : '',
  );
  return (
    <details onToggle={(event) => setOpen(event.currentTarget.open)}>
      <summary className="cursor-pointer text-sm">What a hold would have kept back at this time of the week</summary>
      <label className="my-2 flex items-center gap-2 text-sm">
        A hold of
        <select
          className="select w-32 select-sm"
          value={hours}
          onChange={(event) => setHours(Number(event.target.value))}
        >
          {lengths.map(([n, words]) => (
            <option key={n} value={n}>
              {words}
            </option>
          ))}
        </select>
      </label>
      {open && <DeliveryDryRun answer={answer} where={`for ${lengths.find(([n]) => n === hours)?.[1] ?? ''}`} />}
    </details>
  );
}
