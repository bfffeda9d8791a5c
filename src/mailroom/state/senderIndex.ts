// Who sent each message, as a number: what is counted or chosen by sender goes over columns, not over envelopes.
import { domainOf, withinDomain } from '../../core/mail/address';
import { normalAddress } from '../../core/senders/normal';
import { grown } from '../../core/data/grown';
import type { EnvelopeStore } from '../storage/envelopeStore';

/** A sender by its address in normal form. */
export interface IndexedSender {
  address: string;
  domain: string;
  /** The last name under which it wrote; empty where it gave none. */
  name: string;
}

/** The senders of messages, numbered from 0 as they first wrote. Only after `mailbox.ready()`. */
export class SenderIndex {
  readonly senders: IndexedSender[] = [];
  /** The number of each message’s sender. */
  of = new Uint32Array(0);
  /** The size of each message in bytes. */
  sizes = new Float64Array(0);
  private readonly numbers = new Map<string, number>();
  private count = 0;

  constructor(private readonly envelopes: EnvelopeStore) {}

  /** Takes in the messages up to, not including, `count`. */
  grow(count: number): this {
    if (count > this.of.length) {
      const room = Math.ceil(count * 1.5);
      this.of = grown(this.of, new Uint32Array(room));
      this.sizes = grown(this.sizes, new Float64Array(room));
    }
    for (; this.count < count; this.count++) {
      const { from, size } = this.envelopes.get(this.count);
      const number = this.numberOf(from.address);
      if (from.name) this.senders[number].name = from.name;
      this.of[this.count] = number;
      this.sizes[this.count] = size;
    }
    return this;
  }

  private numberOf(address: string): number {
    const normal = address === '' ? '' : normalAddress(address);
    let number = this.numbers.get(normal);
    if (number === undefined) {
      number = this.senders.push({ address: normal, domain: domainOf(normal), name: '' }) - 1;
      this.numbers.set(normal, number);
    }
    return number;
  }

  /** Which senders are an address or of a domain, by number. */
  matching({ by, value }: { by: 'address' | 'domain'; value: string }): Uint8Array {
    return Uint8Array.from(this.senders, ({ address, domain }) =>
      Number(by === 'address' ? address === value : withinDomain(domain, value)),
    );
  }

  /** Forgets the messages from `count` on; their senders stay, and are nobody’s. */
  drop(count: number): void {
    this.count = Math.min(this.count, count);
  }
}
