// Words that many envelopes share are kept once: senders, recipients, lists, the Message-IDs that threads repeat. Over a
// hundred thousand messages that is a third of the memory.
import type { Address } from '../../core/mail/address';
import type { KeptEnvelope } from './keptEnvelope';

/** More different words than these are not looked after: a mailbox of strangers shares little. */
const most = 500_000;

export class Sharing {
  private readonly words = new Map<string, string>();
  private readonly people = new Map<string, Address>();
  private readonly none: Address[] = [];
  private readonly lists = new Map<string, Address[]>();

  private word(text: string): string {
    const kept = this.words.get(text);
    if (kept !== undefined) return kept;
    if (this.words.size < most) this.words.set(text, text);
    return text;
  }

  private person(address: Address): Address {
    const key = `${address.name}\n${address.address}`;
    const kept = this.people.get(key);
    if (kept) return kept;
    if (this.people.size < most) this.people.set(key, address);
    return address;
  }

  private list(addresses: Address[]): Address[] {
    if (addresses.length === 0) return this.none;
    if (addresses.length > 3) return addresses.map((a) => this.person(a));
    const key = addresses.map((a) => `${a.name}\n${a.address}`).join('\n\n');
    const kept = this.lists.get(key);
    if (kept) return kept;
    const shared = addresses.map((a) => this.person(a));
    if (this.lists.size < most) this.lists.set(key, shared);
    return shared;
  }

  /** The same envelope, made of shared words. */
  share(envelope: KeptEnvelope): KeptEnvelope {
    return {
      ...envelope,
      messageId: this.word(envelope.messageId),
      from: this.person(envelope.from),
      to: this.list(envelope.to),
      cc: this.list(envelope.cc),
      replyTo: this.list(envelope.replyTo),
      listId: this.word(envelope.listId),
      deliveredTo: this.word(envelope.deliveredTo),
      ...(envelope.written
        ? {
            written: {
              ...envelope.written,
              from: this.word(envelope.written.from),
              to: this.word(envelope.written.to),
              cc: this.word(envelope.written.cc),
            },
          }
        : {}),
      references: envelope.references.map((id) => this.word(id)),
    };
  }
}
