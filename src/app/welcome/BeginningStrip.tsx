import { useState } from 'react';
import { Link, useLocation } from 'react-router';
import { mildStrictness } from '../../core/junk/settings';
import type { Setup } from '../../core/line/setup';
import { count, messages } from '../../core/text/sentences';
import type { OwnAddresses } from '../../mailroom/border/ownAddresses';
import type { Overview } from '../../mailroom/border/overview';
import { mailroom } from '../../mailroom/client';
import { commandId, tellOutcome } from '../state/desk';
import { useMailbox } from '../state/overview';
import { prefer, usePreferences } from '../state/preferences';
import { useAnswer } from '../ui/useAnswer';

/** Of more mail the junk filter is asked only when the person wants to know: it takes a while. */
const mostUnasked = 10_000;

const putAway = (what: string) => prefer({ begun: [...usePreferences.getState().begun, what] });

/** An address that stands in much of the mail: is it the person's own? */
function OwnAddress({ likely, total }: { likely: OwnAddresses; total: number }) {
  const [first] = likely.addresses;
  const own = async () => {
    const id = commandId();
    const item = { id, name: (first.name || first.address.split('@')[0]).slice(0, 100), address: first.address };
    tellOutcome(
      await mailroom.editSetup(
        commandId(),
        [{ list: 'accounts', id, item }],
        `Set the account ${first.address}`,
        false,
      ),
    );
  };
  return (
    <p className="flex min-w-0 flex-wrap items-center gap-2">
      <span>
        <span className="font-mono [overflow-wrap:anywhere]">{first.address}</span> stands in {count(first.count)} of{' '}
        {likely.looked < total && 'the newest '}
        {messages(likely.looked)}. Is it yours?
      </span>
      <button className="btn btn-primary btn-xs" onClick={() => void own()}>
        Yes, it is mine
      </button>
      <Link className="btn btn-ghost btn-xs" to="/accounts">
        Others
      </Link>
      <button className="btn btn-ghost btn-xs" onClick={() => putAway('own')}>
        Not now
      </button>
    </p>
  );
}

/** The junk filter is off: what it would do at mild. */
function JunkOff({ setup, inbox }: { setup: Setup; inbox: number }) {
  const [asked, setAsked] = useState(inbox <= mostUnasked);
  const edits = [{ list: 'junk' as const, id: 'junk' as const, item: { ...setup.junk, strictness: mildStrictness } }];
  const { value, waiting } = useAnswer(
    () => (asked ? mailroom.dryRun(edits, null, 'beginning') : Promise.resolve(null)),
    `${asked} ${inbox}`,
    500,
  );
  const moves = value?.ok ? value.report.moves.filter(({ to }) => to === (setup.junk.toBin ? 'bin' : 'junk')) : [];
  const would = moves.reduce((n, move) => n + move.count, 0);
  return (
    <p className="flex min-w-0 flex-wrap items-center gap-2">
      <span role="status">
        The junk filter is off.{' '}
        {value?.ok && !waiting
          ? would === 0
            ? 'At mild it would find nothing here.'
            : `At mild ${messages(would)} would go to Junk.`
          : asked && 'Looking what it would do …'}
      </span>
      {!asked && (
        <button className="btn btn-ghost btn-xs" onClick={() => setAsked(true)}>
          Count what it would do
        </button>
      )}
      <Link className="btn btn-primary btn-xs" to={`/junk-filter?strictness=${mildStrictness}`}>
        Look
      </Link>
      <button className="btn btn-ghost btn-xs" onClick={() => putAway('junk')}>
        Not now
      </button>
    </p>
  );
}

/**
 * What one's own mail begins well with: which address is one's own, and the junk filter. Each is offered with its figures,
 * until it is decided or put away.
 */
export function BeginningStrip({ overview }: { overview: Overview }) {
  const { setup, total, places } = overview;
  const begun = usePreferences((s) => s.begun);
  const importing = useMailbox((s) => s.importing !== null);
  const { pathname } = useLocation();
  const here = total > 0 && !importing && /^\/inbox(\/|$)/.test(pathname);
  const asksOwn = here && setup.accounts.length === 0 && !begun.includes('own');
  const asksJunk = here && setup.junk.strictness === 0 && !begun.includes('junk');
  const { value: likely } = useAnswer(
    () => (asksOwn ? mailroom.ownAddresses() : Promise.resolve(null)),
    `${asksOwn} ${total}`,
    500,
  );
  const offersOwn = asksOwn && likely !== null && likely.addresses.length > 0;
  if (!offersOwn && !asksJunk) return null;
  return (
    <section
      aria-label="To begin well"
      className="flex flex-wrap items-center gap-x-8 gap-y-1 border-b border-base-300 bg-base-200 px-4 py-1.5 text-sm"
    >
      {offersOwn && <OwnAddress likely={likely} total={total} />}
      {asksJunk && <JunkOff setup={setup} inbox={places.find(({ place }) => place === 'inbox')?.total ?? 0} />}
    </section>
  );
}
