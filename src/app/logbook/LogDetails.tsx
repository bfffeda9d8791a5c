import { Link } from 'react-router';
import type { LogEntry } from '../../mailroom/border/log';
import { mailroom } from '../../mailroom/client';
import { settingPath, settingWords } from '../paths';
import { useMailbox } from '../state/overview';
import { RowLines } from '../ui/RowLines';
import { useAnswer } from '../ui/useAnswer';
import { count, messages } from '../../core/text/sentences';
import { shortTime } from '../../core/text/time';
import { useNow } from '../ui/useNow';
import { Waiting } from '../ui/Waiting';

/** What an entry touched: its messages, and for what arrived, who decided where it went. */
export function LogDetails({ entry, decidedBy }: { entry: LogEntry; decidedBy: string | null }) {
  const setup = useMailbox((s) => s.overview?.setup);
  const revision = useMailbox((s) => s.revision);
  const now = useNow();
  const { value } = useAnswer(() => mailroom.logDetail(entry.seq, decidedBy), `${entry.seq} ${decidedBy} ${revision}`);
  if (!setup || !value) return <Waiting says="Looking for its messages …" />;
  return (
    <div className="flex flex-col gap-3">
      {value.decided.length > 0 && (
        <ul aria-label="Who decided" className="flex flex-col gap-0.5">
          {value.decided.map((one) => (
            <li key={`${one.who} ${one.says}`} className="flex flex-wrap gap-x-2">
              <strong className="tabular-nums">{count(one.count)}</strong>
              <span className="quiet">{one.who}:</span> {one.says}
              {one.setting && (
                <Link className="link" to={settingPath(one.setting)}>
                  {settingWords(one.setting)}
                </Link>
              )}
            </li>
          ))}
        </ul>
      )}
      <RowLines rows={value.rows} setup={setup} label={`Messages of: ${entry.says}`} />
      {value.named.length > 0 && (
        <div>
          <p className="text-sm">
            Deleted for good
            {value.named.length < value.gone ? `, ${count(value.named.length)} of ${count(value.gone)}` : ''}, and named
            only until this page is closed:
          </p>
          <ul aria-label={`Deleted for good: ${entry.says}`} className="mt-1 flex flex-col gap-0.5 text-sm">
            {value.named.map(({ id, from, subject, date }) => (
              <li key={id} className="flex min-w-0 gap-3">
                <span className="w-40 shrink-0 truncate font-semibold">{from || 'No sender'}</span>
                <span className="min-w-0 flex-1 truncate" title={subject}>
                  {subject || 'No subject'}
                </span>
                <time className="quiet shrink-0">{shortTime(date, now)}</time>
              </li>
            ))}
          </ul>
        </div>
      )}
      {(value.total > value.rows.length || value.gone > 0) && (
        <p className="quiet text-sm">
          {value.rows.length < value.total - value.gone &&
            `The newest ${count(value.rows.length)} of ${messages(value.total - value.gone)}. `}
          {value.gone > 0 && `${messages(value.gone)} of it ${value.gone === 1 ? 'is' : 'are'} not here any more.`}
        </p>
      )}
    </div>
  );
}
