// For tests: a message as the rules see it, without a line and a setup.
import type { AccountIndex } from '../mail/account';
import type { Envelope } from '../mail/envelopeSchema';
import { addressedTo } from '../senders/kind';
import type { RuleMessage } from './match';

/** A message of which nothing is known but its envelope and what `known` says. */
export function messageFor(envelope: Envelope, accounts: AccountIndex, known: Partial<RuleMessage> = {}): RuleMessage {
  return {
    envelope,
    now: 0,
    account: accounts.accounts[accounts.of(envelope)]?.id ?? null,
    safe: false,
    score: null,
    addressed: addressedTo(envelope, accounts),
    answersOwn: false,
    deep: () => false,
    ...known,
  };
}
