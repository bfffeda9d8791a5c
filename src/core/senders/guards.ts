// Guards: what a blocking entry would hit that the person can hardly mean.
import { count } from '../text/sentences';
import { domainOf, type Address } from '../mail/address';
import { isPublicSuffix } from '../mail/site';
import { normalAddress } from './normal';
import { everything, RegisterIndex, type Entry, type Registered } from './register';

/** A reason to ask before blocking, and whom it would hit. */
export interface Guard {
  kind: 'public suffix' | 'own domain' | 'shared domain' | 'people written to' | 'everything';
  says: string;
  people: Address[];
}

const list = (n: number) => (n === 1 ? 'one person' : `${count(n)} people`);

/**
 * What speaks against a blocking entry; empty for a safe one. `own`: the person's own addresses; `writtenTo`: whom they
 * wrote to. `shared`: domains of free mailboxes, where everybody is a person of their own. `entries`: the Register as it would be, so that people with an entry of their own count as what that says.
 */
export function guardsOf(
  entry: Entry,
  own: readonly string[],
  writtenTo: readonly Address[],
  entries: readonly Entry[],
  shared: ReadonlySet<string>,
): Guard[] {
  if (entry.standing !== 'blocked') return [];
  const out: Guard[] = [];
  const index = new RegisterIndex(entries);
  const hits = (address: string) => index.lookUp(fromAlone(address))?.id === entry.id;
  const ofSender = entry.kind === 'address' || entry.kind === 'domain' || entry.kind === 'country';
  if (entry.kind === 'domain' && isPublicSuffix(entry.value))
    out.push({
      kind: 'public suffix',
      says: `${entry.value} belongs to nobody: strangers of all kinds have their domains below it (Public Suffix List).`,
      people: [],
    });
  if (ofSender && own.some((address) => hits(address)))
    out.push({
      kind: 'own domain',
      says: 'It would block your own address, and your colleagues’ where they share its domain.',
      people: [],
    });
  else if (entry.kind === 'domain' && own.some((address) => domainOf(normalAddress(address)) === entry.value))
    out.push({ kind: 'own domain', says: `${entry.value} is your own domain.`, people: [] });
  if (entry.kind === 'domain' && shared.has(entry.value))
    out.push({
      kind: 'shared domain',
      says: `${entry.value} is shared by a great many mailboxes, each a person of their own.`,
      people: [],
    });
  if (ofSender) {
    const people = writtenTo.filter(({ address }) => hits(address));
    if (people.length)
      out.push({
        kind: 'people written to',
        says: `You wrote to ${list(people.length)} whom it would block.`,
        people: people.slice(0, 50),
      });
  }
  if (entry.value === everything && !entry.except?.length)
    out.push({ kind: 'everything', says: 'It would block all mail that no other entry decides.', people: [] });
  return out;
}

const fromAlone = (address: string): Registered => ({
  from: { name: '', address },
  deliveredTo: '',
  to: [],
  cc: [],
  listId: '',
  charset: '',
  script: '',
});
