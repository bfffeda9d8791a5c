// People whom the person knows: whom they wrote to, their contacts, themselves.
import { contactAddresses, namedAddresses } from '../../core/contacts/contact';
import type { SenderSignal } from '../../core/junk/senderFeatures';
import { addressKey, domainOf, type Address } from '../../core/mail/address';
import type { Envelope } from '../../core/mail/envelopeSchema';
import { normalAddress } from '../../core/senders/normal';
import type * as knownPeople from '../../core/senders/knownPeople';
import type { KnownPeople } from '../../core/senders/knownPeople';
import type { Setup } from '../../core/line/setup';
import type { MailState } from './mailState';
import type { Stored } from '../storage/stored';

/** Somebody whom the person wrote to: how often, and when at last (milliseconds since 1970). */
interface Written extends Address {
  count: number;
  last: number;
}

/** In this time somebody who is not written to any more counts half, in milliseconds. */
const halfLife = 90 * 86_400_000;

/** Answers only after `mailbox.ready()`: it reads the envelopes of what was sent. */
export class People {
  private sent: Map<string, Written> | null = null;
  private countedTo = 0;
  private known: (Pick<Setup, 'contacts' | 'accounts'> & { people: KnownPeople; written: number }) | null = null;

  /** What looks alike: a large table, which the first rows don't need. */
  private alike: typeof knownPeople | null = null;

  constructor(private readonly mailbox: MailState & Pick<Stored, 'envelopes'>) {}

  /** Makes ready to answer. */
  async ready(): Promise<void> {
    this.alike ??= await import('../../core/senders/knownPeople');
  }

  private get looks() {
    if (!this.alike) throw new Error('People are asked for only after the mailbox is ready.');
    return this.alike;
  }

  /** Messages were taken back: everything is counted anew. */
  changed(): void {
    this.sent = null;
    this.known = null;
  }

  /** Everyone whom the person wrote to, by address in normal form: the recipients of what is their own or in Sent. */
  private writtenMap(): Map<string, Written> {
    const { columns, tables, envelopes, derived } = this.mailbox;
    if (!this.sent) {
      this.sent = new Map();
      this.countedTo = 0;
    }
    const sent = tables.placeIndex('sent');
    for (let id = this.countedTo; id < columns.count; id++) {
      if (columns.place[id] !== sent && !derived.isOwn(id)) continue;
      const { to, cc } = envelopes.get(id);
      for (const list of [to, cc])
        for (const { name, address } of list) {
          if (!address) continue;
          const key = normalAddress(address);
          const old = this.sent.get(key);
          if (!old || (!old.name && name)) this.known = null;
          this.sent.set(key, {
            name: old?.name || name,
            address: key,
            count: (old?.count ?? 0) + 1,
            last: Math.max(old?.last ?? columns.date[id], columns.date[id]),
          });
        }
    }
    this.countedTo = columns.count;
    return this.sent;
  }

  /** The same with a weight: most often and latest is most. */
  recipients(): { address: Address; weight: number }[] {
    const now = this.mailbox.now();
    return [...this.writtenMap().values()].map(({ name, address, count, last }) => ({
      address: { name, address },
      weight: count * 0.5 ** (Math.max(0, now - last) / halfLife),
    }));
  }

  /** Everyone whom the person wrote to. */
  get writtenTo(): Address[] {
    return [...this.writtenMap().values()];
  }

  /** Whether the person wrote to that address. */
  wroteTo(address: string): boolean {
    return this.writtenMap().has(normalAddress(address));
  }

  /** Whom others may imitate. */
  get imitable(): KnownPeople {
    const { setup } = this.mailbox;
    const written = this.writtenTo;
    const { contacts, accounts } = setup;
    const was = this.known;
    if (was?.contacts === contacts && was.accounts === accounts && was.written === written.length) return was.people;
    const people = this.looks.knownPeople([...written, ...namedAddresses(contacts)], accounts);
    this.known = { people, contacts, accounts, written: written.length };
    return people;
  }

  /** What is known of a message's sender that the junk filter weighs. */
  signalsOf({ from, listId }: Pick<Envelope, 'from' | 'listId'>): SenderSignal[] {
    const address = normalAddress(from.address);
    const { byName, domains, byLook } = this.imitable;
    if (this.writtenMap().has(address) || this.isContact(address)) return ['known'];
    const out: SenderSignal[] = [];
    const theirs = from.name ? byName.get(this.looks.nameKey(from.name)) : undefined;
    // Lists send in the name of those who wrote to them.
    if (theirs && !theirs.has(address) && !listId) out.push('imitates a name');
    const domain = domainOf(address);
    if (domain && !domains.has(domain) && byLook.has(this.looks.domainKey(domain))) out.push('imitates a domain');
    return out;
  }

  /** Whether the person wrote to an address, in normal form, or has a card for it. */
  knows(address: string): boolean {
    return this.writtenMap().has(address) || this.isContact(address);
  }

  private isContact(address: string): boolean {
    return contactAddresses(this.mailbox.setup.contacts).has(address);
  }

  /** The person's own addresses. */
  get own(): string[] {
    return this.mailbox.setup.accounts.map(({ address }) => addressKey(address));
  }
}
