import { ShieldBan, ShieldCheck } from 'lucide-react';
import { useMemo } from 'react';
import { Link } from 'react-router';
import { entryWords, RegisterIndex, type Registered } from '../../core/senders/register';
import type { Setup } from '../../core/line/setup';

interface SenderStandingProps {
  message: Registered;
  id: number;
  setup: Setup;
}

/** What the Register says of a message, and the way to change it; or Block and Safe, where it says nothing. */
export function SenderStanding({ message, id, setup }: SenderStandingProps) {
  const entry = useMemo(() => new RegisterIndex(setup.register).lookUp(message), [message, setup.register]);
  const { address } = message.from;
  if (!entry) {
    if (!address) return null;
    const path = `/register/new?value=${encodeURIComponent(address)}&from=${id}`;
    return (
      <>
        <Link className="btn btn-ghost btn-xs" data-key="block" to={path} title="Block the sender (B)">
          <ShieldBan size={14} aria-hidden /> Block sender
        </Link>
        <Link
          className="btn btn-ghost btn-xs"
          data-key="safe"
          to={`${path}&standing=safe`}
          title="Never take this sender’s mail for junk (Shift+B)"
        >
          <ShieldCheck size={14} aria-hidden /> Safe sender
        </Link>
      </>
    );
  }
  const blocked = entry.standing === 'blocked';
  const Icon = blocked ? ShieldBan : ShieldCheck;
  return (
    <Link
      className={`btn max-w-full btn-ghost btn-xs ${blocked ? 'text-error' : 'text-success'}`}
      data-key="block safe"
      to={`/register/${encodeURIComponent(entry.id)}`}
      title={`${entryWords(entry)}: open its entry in the Register (B)`}
    >
      <Icon size={14} aria-hidden /> {blocked ? 'Blocked' : 'Safe'} by {entryWords(entry)}
    </Link>
  );
}
