import { useState } from 'react';
import { count, messages } from '../../core/text/sentences';
import { exactTime, lengthWords } from '../../core/text/time';
import type { DeliveryReport, DeliveryReportResult } from '../../mailroom/border/trays';
import type { Row } from '../../mailroom/border/rows';
import type { Answer } from '../ui/useAnswer';
import { Waiting } from '../ui/Waiting';

const comes = (until: number | null): string => (until === null ? 'waits for nothing by itself' : exactTime(until));

interface OfRowProps {
  row: Row;
  children: string;
}

function OfRow({ row, children }: OfRowProps) {
  return (
    <li className="border-b border-base-300 py-1">
      <span className="block truncate">
        <strong>{row.from.name || row.from.address || 'No sender'}</strong> {row.subject || 'No subject'}
      </span>
      <span className="quiet block text-sm">{children}</span>
    </li>
  );
}

/** So many moments of delivery are listed at first. */
const firstShown = 10;

function Deliveries({ list }: { list: DeliveryReport['deliveries'] }) {
  const [all, setAll] = useState(false);
  const shown = all ? list : list.slice(0, firstShown);
  return (
    <div>
      <h3 className="font-semibold">When they would have come</h3>
      <ul className="text-sm">
        {shown.map(({ at, count: n }) => (
          <li key={at} className="flex gap-3">
            <span className="w-44 tabular-nums">{exactTime(at)}</span>
            <span className="tabular-nums">{messages(n)}</span>
          </li>
        ))}
      </ul>
      {list.length > shown.length && (
        <button type="button" className="btn btn-ghost btn-xs" onClick={() => setAll(true)}>
          and {count(list.length - shown.length)} earlier …
        </button>
      )}
    </div>
  );
}

interface DeliveryDryRunProps {
  answer: Answer<DeliveryReportResult>;
  /** What would have waited, in words: `in this tray`. */
  where: string;
  /** Its heading, where another dry run stands beside it. */
  title?: string;
}

/** What a tray, a timetable or a hold would have done in the last weeks. */
export function DeliveryDryRun({ answer: { value, error, waiting }, where, title = 'Dry run' }: DeliveryDryRunProps) {
  return (
    <section aria-label={title} aria-busy={waiting} className="flex flex-col gap-3">
      <h2 className="text-lg font-semibold">
        {title}
        {waiting && value && <span className="quiet text-sm font-normal"> trying it again …</span>}
      </h2>
      {error && <p className="border-l-4 border-error bg-base-200 px-3 py-2">{error}</p>}
      {value && !value.ok && <p className="border-l-4 border-accent bg-base-200 px-3 py-2">{value.error}</p>}
      {!value && !error && <Waiting says="Trying it on the mail of the last weeks …" />}
      {value?.ok && <Report report={value.report} where={where} />}
    </section>
  );
}

function Report({ report, where }: { report: DeliveryReport; where: string }) {
  const { days, came, waits, never, deliveries, longest, sooner, soonerTotal } = report;
  return (
    <>
      <p>
        Of <strong>{messages(came)}</strong> in the last {count(days)} days <strong>{count(waits)}</strong> would have
        waited {where}.{never > 0 && ` ${count(never)} of them would wait for nothing by itself.`}
      </p>
      {soonerTotal > 0 && (
        <div className="border-l-4 border-accent bg-base-200 px-3 py-2">
          <p>
            <strong>{messages(soonerTotal)}</strong> that you answered or flagged within two hours would have come only
            after that:
          </p>
          <ul aria-label="Would have come too late">
            {sooner.map(({ row, until, did, after }) => (
              <OfRow key={row.id} row={row}>
                {`${did} after ${lengthWords(after)}; ${until === null ? comes(until) : `would have come ${comes(until)}`}`}
              </OfRow>
            ))}
          </ul>
          {soonerTotal > sooner.length && (
            <p className="quiet text-sm">and {count(soonerTotal - sooner.length)} more.</p>
          )}
        </div>
      )}
      {waits > 0 && soonerTotal === 0 && (
        <p className="quiet text-sm">None of them was answered or flagged within two hours.</p>
      )}
      {deliveries.length > 0 && <Deliveries list={deliveries} />}
      {longest.length > 0 && (
        <div>
          <h3 className="font-semibold">Would have waited longest</h3>
          <ul>
            {longest.map(({ row, until }) => (
              <OfRow key={row.id} row={row}>
                {until === null ? comes(until) : `${lengthWords(until - row.date)}, until ${comes(until)}`}
              </OfRow>
            ))}
          </ul>
        </div>
      )}
    </>
  );
}
