import { ArrowRight } from 'lucide-react';
import { Fragment, useState } from 'react';
import { Link } from 'react-router';
import { placeName, type Place } from '../../core/mail/place';
import type { Setup } from '../../core/line/setup';
import { exactTime } from '../../core/text/time';
import type { DryRunReport } from '../../mailroom/border/rules';
import { viewPath } from '../paths';
import { SafeMessage } from '../reading/SafeMessage';

interface ChangedMessagesProps {
  list: DryRunReport['sample'];
  setup: Setup;
}

/** The messages that a dry run would change; each is looked into where it stands, since nothing is saved yet. */
export function ChangedMessages({ list, setup }: ChangedMessagesProps) {
  const [open, setOpen] = useState<number | null>(null);
  const name = (place: Place) => placeName(place, setup.folders);
  const scored = list.some(({ score }) => score !== null);
  return (
    <div className="overflow-x-auto" tabIndex={0} role="region" aria-label="Messages that would change">
      <table className="table table-fixed table-sm">
        <caption className="sr-only">Messages that would change</caption>
        <thead>
          <tr>
            {scored && <th className="w-16 text-right">Score</th>}
            <th>From</th>
            <th>Subject</th>
            <th>Goes</th>
          </tr>
        </thead>
        <tbody>
          {list.map(({ row, to, score }) => (
            <Fragment key={row.id}>
              <tr>
                {scored && <td className="text-right tabular-nums">{score ?? '–'}</td>}
                <td className="truncate">{row.from.name || row.from.address}</td>
                <td className="truncate" title={`${row.subject || 'No subject'}, ${exactTime(row.date)}`}>
                  <button
                    className="block min-h-6 w-full truncate text-left underline decoration-dotted underline-offset-4"
                    aria-expanded={open === row.id}
                    onClick={() => setOpen(open === row.id ? null : row.id)}
                  >
                    {row.subject || 'No subject'}
                  </button>
                </td>
                <td className="truncate">
                  {row.place === to ? (
                    <span className="quiet">stays in {name(to)}</span>
                  ) : (
                    <>
                      {name(row.place)} <ArrowRight size={12} className="inline" aria-label="to" /> {name(to)}
                    </>
                  )}
                </td>
              </tr>
              {open === row.id && (
                <tr>
                  <td colSpan={scored ? 4 : 3} className="bg-base-200 p-2">
                    <div className="rounded border border-base-300 bg-base-100">
                      <SafeMessage row={row} when={exactTime(row.date)} />
                      <p className="border-t border-base-300 px-4 py-2">
                        <Link
                          className="link"
                          to={viewPath({ kind: 'place', place: row.place }, row.id)}
                          target="_blank"
                          rel="noopener"
                        >
                          Open it at the desk, in another tab
                        </Link>
                      </p>
                    </div>
                  </td>
                </tr>
              )}
            </Fragment>
          ))}
        </tbody>
      </table>
    </div>
  );
}
