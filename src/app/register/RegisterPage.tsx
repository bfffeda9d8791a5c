import { Plus } from 'lucide-react';
import { useMemo, useState } from 'react';
import { Link } from 'react-router';
import type { Entry } from '../../core/senders/register';
import { mailroom } from '../../mailroom/client';
import { UndoSpot } from '../desk/StampBar';
import { commandId, tellOutcome } from '../state/desk';
import { useMailbox } from '../state/mailbox';
import { Page } from '../ui/Page';
import { dayOf } from '../ui/time';
import { count } from '../ui/words';

/** The Register: all standing decisions about senders, in one table. */
export function RegisterPage() {
  const setup = useMailbox((s) => s.overview?.setup);
  const [wanted, setWanted] = useState('');
  const shown = useMemo(() => {
    const word = wanted.trim().toLowerCase();
    return (setup?.register ?? [])
      .filter((e) => e.value.includes(word) || e.why.toLowerCase().includes(word))
      .toSorted((a, b) => a.value.localeCompare(b.value));
  }, [setup, wanted]);
  if (!setup) return null;

  const takeOff = async (entry: Entry) =>
    tellOutcome(
      await mailroom.editSetup(
        commandId(),
        [{ list: 'register', id: entry.id, item: null }],
        `Took ${entry.value} off the Register`,
        true,
      ),
    );

  return (
    <Page
      title="Register"
      acts={
        <>
          <UndoSpot />
          <Link className="btn btn-primary btn-sm" to="/register/new">
            <Plus size={16} aria-hidden /> New entry
          </Link>
        </>
      }
    >
      <p className="mb-4 max-w-prose">
        Who is Safe and who is Blocked. The more exact entry wins: an address before its domain, a domain before the one
        above it. Mail from a blocked sender goes to Junk, where it can be found and brought back.
      </p>
      {setup.register.length === 0 ? (
        <p>
          Nobody yet. Open a message and press <strong>Block sender</strong>, or make a{' '}
          <Link className="link" to="/register/new">
            new entry
          </Link>
          .
        </p>
      ) : (
        <>
          <label className="mb-3 flex max-w-sm items-center gap-2">
            <span className="whitespace-nowrap">Show only</span>
            <input
              className="input input-sm w-full"
              value={wanted}
              placeholder="part of an address or reason"
              onChange={(e) => setWanted(e.target.value)}
            />
          </label>
          <div className="overflow-x-auto">
            <table className="table table-sm">
              <thead>
                <tr>
                  <th>Address or domain</th>
                  <th>Standing</th>
                  <th>Since</th>
                  <th>Why</th>
                  <th>
                    <span className="sr-only">Acts</span>
                  </th>
                </tr>
              </thead>
              <tbody>
                {shown.map((entry) => (
                  <tr key={entry.id}>
                    <td className="font-mono">
                      <Link className="link" to={`/register/${encodeURIComponent(entry.id)}`}>
                        {entry.value}
                      </Link>
                    </td>
                    <td
                      className={
                        entry.standing === 'blocked' ? 'font-semibold text-error' : 'font-semibold text-success'
                      }
                    >
                      {entry.standing === 'blocked' ? 'Blocked' : 'Safe'}
                    </td>
                    <td className="whitespace-nowrap">{dayOf(entry.since)}</td>
                    <td>{entry.why}</td>
                    <td className="text-right">
                      <button
                        className="btn btn-ghost btn-xs"
                        aria-label={`Take off ${entry.value}`}
                        onClick={() => void takeOff(entry)}
                      >
                        Take off
                      </button>
                    </td>
                  </tr>
                ))}
              </tbody>
            </table>
          </div>
          <p className="quiet mt-3 text-sm" role="status">
            {shown.length === setup.register.length
              ? `${count(shown.length)} in all.`
              : `${count(shown.length)} of ${count(setup.register.length)} shown.`}{' '}
            Taking an entry off brings back what it took, unless you moved it since.
          </p>
        </>
      )}
    </Page>
  );
}
