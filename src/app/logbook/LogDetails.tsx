import { Link } from 'react-router';
import type { LogEntry } from '../../mailroom/border/log';
import { mailroom } from '../../mailroom/client';
import { settingPath, settingWords } from '../paths';
import { useMailbox } from '../state/overview';
import { RowLines } from '../ui/RowLines';
import { useAnswer } from '../ui/useAnswer';
import { count, messages } from '../../core/text/sentences';
import { Waiting } from '../ui/Waiting';

/** What an entry touched: its messages, and for what arrived, who decided where it went. */
export function LogDetails({ entry, decidedBy }: { entry: LogEntry; decidedBy: string | null }) {
  const setup = useMailbox((s) => s.overview?.setup);
  const revision = useMailbox((s) => s.revision);
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
