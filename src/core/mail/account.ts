// Accounts: the person's own addresses, and by which of them a message came.
import { idSchema } from '../data/id';
import { z } from 'zod';
import { addressKey } from './address';
import type { Envelope } from './envelopeSchema';
import { remembering } from '../data/memo';

/** One of the person's own addresses, or a shared one that they look after. */
export const accountSchema = z.object({
  id: idSchema,
  /** The name on the screen and in what is sent from it. */
  name: z.string().min(1).max(100),
  /** In lower case, without blanks; each address stands once. */
  address: z.string().regex(/^[^\s@]+@[^\s@]+$/, { error: 'must be an address, like ana@harbour.example' }),
  /** What goes below what is written from it, as rich text. */
  signature: z.string().max(50_000).optional(),
});
export type Account = z.infer<typeof accountSchema>;

/** What is wrong with an account as it was typed, in words; null where it can be saved. `others`: the other accounts. */
export function accountTrouble(account: Account, others: readonly Account[]): string | null {
  if (account.name === '' && account.address === '') return 'Type a name and an address.';
  const read = accountSchema.safeParse(account);
  if (!read.success)
    return read.error.issues[0].path[0] === 'name' ? 'Type a name.' : `“${account.address}” is no address.`;
  return others.some((other) => other.address === account.address) ? 'That address is an account already.' : null;
}

/** Tells by which account a message came or from which it was sent. */
export class AccountIndex {
  private readonly index: Map<string, number>;
  /** The position of an address as it was written; -1 where it is nobody's. */
  private readonly position = remembering((address) => this.index.get(addressKey(address)) ?? -1);

  constructor(readonly accounts: readonly Account[]) {
    this.index = new Map(accounts.map((account, i) => [addressKey(account.address), i]));
  }

  /** Whether an address is one of the person's own. */
  isOwn(address: string): boolean {
    return this.position(address) >= 0;
  }

  /** The addresses, in the form in which they are compared. */
  get own(): ReadonlySet<string> {
    return new Set(this.index.keys());
  }

  /**
   * The positions of the accounts under which a message is found, each once, its own first: sent mail is of its
   * sender's; else the trace counts (RFC 5321, section 4.4), then To, then Cc.
   */
  all({ from, deliveredTo, to, cc }: Pick<Envelope, 'from' | 'deliveredTo' | 'to' | 'cc'>): number[] {
    const positions = new Set<number>();
    if (from.address) positions.add(this.position(from.address));
    if (deliveredTo) positions.add(this.position(deliveredTo));
    for (const list of [to, cc]) for (const { address } of list) positions.add(this.position(address));
    positions.delete(-1);
    return [...positions];
  }

  /** The position of a message's own account; -1 where it has none. */
  of(envelope: Pick<Envelope, 'from' | 'deliveredTo' | 'to' | 'cc'>): number {
    return this.all(envelope).at(0) ?? -1;
  }
}
