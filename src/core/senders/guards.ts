// Guards: what a blocking entry would hit that the person can hardly mean.
import { count } from '../text/sentences';
import { domainOf, type Address } from '../mail/address';
import { isPublicSuffix } from '../mail/site';
import { normalAddress } from './normal';
import { everything, RegisterIndex, type Entry, type EntryKind, type Registered } from './register';

/** A reason to ask before blocking, and whom it would hit. */
export interface Guard {
  kind: 'public suffix' | 'own domain' | 'shared domain' | 'people written to' | 'broad' | 'everything';
  says: string;
  people: Address[];
}

/** What nearly all mail is written in: Latin letters, and the character sets of them (common practice, no source). */
const broadest = new Map<EntryKind, readonly string[]>([
  ['script', ['Latn']],
  ['charset', ['utf-8', 'us-ascii', 'iso-8859-1', 'windows-1252']],
]);

/**
 * What speaks against some entries that are made or changed together; nothing against safe ones. `own`: the person's own
 * addresses; `writtenTo`: whom they wrote to. `register`: all entries as they would be, so that people with an entry of
 * their own count as what that says. `shared`: domains of free mailboxes, where everybody is a person of their own.
 */
export function guardsOf(
  entries: readonly Entry[],
  own: readonly string[],
  writtenTo: readonly Address[],
  register: readonly Entry[],
  shared: ReadonlySet<string>,
): Guard[] {
  const blocked = entries.filter(({ standing }) => standing === 'blocked');
  if (blocked.length === 0) return [];
  const ids = new Set(blocked.map(({ id }) => id));
  const index = new RegisterIndex(register);
  // An entry for own addresses, character sets or writing systems hits mail, not somebody.
  const hits = (address: string) => ids.has(index.lookUp(fromAlone(address))?.id ?? '');
  const out: Guard[] = [];
  const guard = (kind: Guard['kind'], of: readonly unknown[], says: string, people: Address[] = []) => {
    if (of.length > 0) out.push({ kind, says, people });
  };
  const domains = blocked.filter(({ kind }) => kind === 'domain').map(({ value }) => value);

  const nobodys = domains.filter(isPublicSuffix);
  guard(
    'public suffix',
    nobodys,
    `${some(nobodys)} ${verb(nobodys, 'belongs', 'belong')} to nobody: strangers of all kinds have their domains below ${verb(nobodys, 'it', 'them')} (Public Suffix List).`,
  );
  const ownHit = own.filter(hits);
  const ownDomains = domains.filter((value) => own.some((one) => domainOf(normalAddress(one)) === value));
  guard('own domain', ownHit, `It would block your own address, and your colleagues’ where they share its domain.`);
  if (ownHit.length === 0) guard('own domain', ownDomains, `${some(ownDomains)} is your own domain.`);
  const manys = domains.filter((value) => shared.has(value));
  guard(
    'shared domain',
    manys,
    `${some(manys)} ${verb(manys, 'is', 'are')} shared by a great many mailboxes, each a person of their own.`,
  );
  const people = writtenTo.filter(({ address }) => hits(address));
  guard(
    'people written to',
    people,
    `You wrote to ${persons(people.length)} whom it would block.`,
    people.slice(0, 50),
  );
  const broad = blocked.filter(isBroad);
  guard('broad', broad, `Nearly all mail is ${broadWords(broad)}: it would block what no more exact entry decides.`);
  const ofOwn = blocked.filter(({ kind }) => kind === 'own').map(({ value }) => value);
  guard('broad', ofOwn, `It would block all mail to ${some(ofOwn)} that no more exact entry decides.`);
  const all = blocked.filter(({ value, except }) => value === everything && !except?.length);
  guard('everything', all, 'It would block all mail that no other entry decides.');
  return out;
}

/** Whether an entry is about what nearly all mail is written in; “all” without exceptions is told as what it is. */
function isBroad({ kind, value, except }: Entry): boolean {
  const those = broadest.get(kind);
  if (!those) return false;
  return value === everything ? !!except?.length && !those.every((one) => except.includes(one)) : those.includes(value);
}

const broadWords = (broad: readonly Entry[]) =>
  broad.some(({ kind }) => kind === 'script') ? 'written in Latin letters' : 'in one of these character sets';

const persons = (n: number) => (n === 1 ? 'one person' : `${count(n)} people`);
const verb = (of: readonly string[], one: string, many: string) => (of.length === 1 ? one : many);
/** The first of some values by name, and how many more. */
const some = (values: readonly string[]) =>
  values.length <= 4 ? values.join(', ') : `${values.slice(0, 3).join(', ')} and ${count(values.length - 3)} more`;

const fromAlone = (address: string): Registered => ({
  from: { name: '', address },
  deliveredTo: '',
  to: [],
  cc: [],
  listId: '',
  charset: '',
  script: '',
});
