// Sender kinds: what sort of mail a message is by who sent it and to whom.
import type { AccountIndex } from '../mail/account';
import type { Envelope } from '../mail/envelopeSchema';

/**
 * A message is of exactly one kind, the first that fits: by a mailing list (RFC 2919), sent by a machine (RFC 3834), to
 * the person alone, or to them and others.
 */
export const senderKinds = ['alone', 'others', 'lists', 'machines'] as const;
export type SenderKind = (typeof senderKinds)[number];

export const kindNames: Record<SenderKind, string> = {
  alone: 'To me alone',
  others: 'With others',
  lists: 'Lists',
  machines: 'Machines',
};

/** The kind of a message. With no accounts known, one with a single recipient counts as to the person alone. */
export function senderKind(
  envelope: Pick<Envelope, 'listId' | 'automatic' | 'to' | 'cc'>,
  accounts: AccountIndex,
): SenderKind {
  if (envelope.listId) return 'lists';
  if (envelope.automatic) return 'machines';
  const recipients = [...envelope.to, ...envelope.cc];
  if (recipients.length !== 1) return 'others';
  return accounts.accounts.length === 0 || accounts.isOwn(recipients[0].address) ? 'alone' : 'others';
}

/** How a message is addressed: to the person alone, to them among others, or without naming them. */
export function addressedTo(
  { to, cc }: Pick<Envelope, 'to' | 'cc'>,
  accounts: AccountIndex,
): 'alone' | 'among' | 'not' {
  const own = [...to, ...cc].some(({ address }) => accounts.isOwn(address));
  return !own ? 'not' : to.length + cc.length === 1 ? 'alone' : 'among';
}
