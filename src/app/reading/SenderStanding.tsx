import { ShieldBan, ShieldCheck } from 'lucide-react';
import { useMemo } from 'react';
import { Link } from 'react-router';
import { RegisterIndex } from '../../core/senders/register';
import type { Setup } from '../../core/line/setup';

/** What the Register says of the sender, and the way to change it; or Block, where it says nothing. */
export function SenderStanding({ address, id, setup }: { address: string; id: number; setup: Setup }) {
  const entry = useMemo(() => new RegisterIndex(setup.register).lookUp(address), [address, setup.register]);
  if (!entry)
    return (
      <Link
        className="btn btn-ghost btn-xs"
        data-key="block"
        to={`/register/new?value=${encodeURIComponent(address)}&from=${id}`}
        title="Block the sender (B)"
      >
        <ShieldBan size={14} aria-hidden /> Block sender
      </Link>
    );
  const blocked = entry.standing === 'blocked';
  const Icon = blocked ? ShieldBan : ShieldCheck;
  return (
    <Link
      className={`btn btn-ghost btn-xs ${blocked ? 'text-error' : 'text-success'}`}
      data-key="block"
      to={`/register/${encodeURIComponent(entry.id)}`}
      title={`${entry.value}: open its entry in the Register (B)`}
    >
      <Icon size={14} aria-hidden /> {blocked ? 'Blocked' : 'Safe'} by {entry.value}
    </Link>
  );
}
