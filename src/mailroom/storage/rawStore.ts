// The raw messages in storage: packed by 64, read only when one is opened, exported or read again.
import type { Form } from '../../core/mail/mbox';
import { messageOfStored, type Message, type StoredMessage } from '../../core/mail/message';
import type { Records } from './records';
import { bytes, int32 } from './schemas';
import { bigMessage, keyOf, rawPackSize } from './keys';
import { z } from 'zod';

const rawPackSchema = z.object({
  /** Length of each message in bytes; -1 for one that has a record of its own, -2 for one that is gone. */
  lengths: int32,
  /** How each is wrapped: 0 for a message by itself, 1 as it stood in an mbox. */
  forms: bytes,
  bytes,
});

/** The bytes of a message in a record of its own; earlier versions wrote them alone. */
const bigRecordSchema = z.union([bytes, z.object({ bytes })]);

interface OpenPack {
  pack: number;
  messages: (StoredMessage | 'big' | 'gone')[];
  /** How each big or gone one is wrapped. */
  forms: Form[];
}

export class RawStore {
  /** The last pack read or written: neighbours are often wanted together, and the last one grows. */
  private cached: OpenPack | null = null;

  constructor(private readonly records: Records) {}

  private async load(pack: number): Promise<OpenPack> {
    if (this.cached?.pack === pack) return this.cached;
    const record = await this.records.take(keyOf.raw(pack), rawPackSchema);
    const open: OpenPack = { pack, messages: [], forms: [] };
    if (record !== null) {
      const { lengths, forms, bytes } = record;
      let at = 0;
      for (let i = 0; i < lengths.length; i++) {
        const form: Form = forms[i] === 1 ? 'mbox' : 'eml';
        open.forms.push(form);
        if (lengths[i] < 0) open.messages.push(lengths[i] === -1 ? 'big' : 'gone');
        else {
          open.messages.push({ bytes: bytes.subarray(at, at + lengths[i]), form });
          at += lengths[i];
        }
      }
    }
    this.cached = open;
    return open;
  }

  private async save(open: OpenPack): Promise<void> {
    const { messages, forms } = open;
    const total = messages.reduce((n, m) => n + (typeof m === 'string' ? 0 : m.bytes.length), 0);
    const record = {
      lengths: Int32Array.from(messages, (m) => (m === 'big' ? -1 : m === 'gone' ? -2 : m.bytes.length)),
      forms: Uint8Array.from(forms, (form) => (form === 'mbox' ? 1 : 0)),
      bytes: new Uint8Array(total),
    };
    let at = 0;
    for (const m of messages)
      if (typeof m !== 'string') {
        record.bytes.set(m.bytes, at);
        at += m.bytes.length;
      }
    await this.records.write(keyOf.raw(open.pack), record);
  }

  /** Writes messages with the ids from `first` on. What storage held beyond `first` never counted, and goes. */
  async append(first: number, messages: readonly StoredMessage[]): Promise<void> {
    const writes: Promise<void>[] = [];
    let open = null as OpenPack | null;
    for (const [i, message] of messages.entries()) {
      const id = first + i;
      const pack = Math.floor(id / rawPackSize);
      if (open?.pack !== pack) {
        if (open) writes.push(this.save(open));
        const old: OpenPack = id % rawPackSize === 0 ? { pack, messages: [], forms: [] } : await this.load(pack);
        const keep = id % rawPackSize;
        open = { pack, messages: old.messages.slice(0, keep), forms: old.forms.slice(0, keep) };
      }
      open.forms.push(message.form);
      if (message.bytes.length > bigMessage) {
        writes.push(this.records.write(keyOf.big(id), { bytes: message.bytes }));
        open.messages.push('big');
      } else open.messages.push(message);
    }
    if (open) writes.push(this.save(open));
    await Promise.all(writes);
    this.cached = open;
  }

  /** A message's bytes; null where they were deleted for good. Throws SpoiltRecord where they can't be read. */
  async read(id: number): Promise<StoredMessage | null> {
    const open = await this.load(Math.floor(id / rawPackSize));
    const at = id % rawPackSize;
    const message = open.messages[at];
    if (message === undefined || message === 'gone') return null;
    if (message !== 'big') return message;
    const big = await this.records.readDerived(keyOf.big(id), bigRecordSchema);
    return big && { bytes: 'bytes' in big ? big.bytes : big, form: open.forms[at] };
  }

  /** A message; null where its bytes were deleted for good or can't be read. */
  async message(id: number): Promise<Message | null> {
    const stored = await this.read(id).catch(() => null);
    return stored && messageOfStored(stored);
  }

  /** Deletes the bytes of messages for good. */
  async drop(ids: Iterable<number>): Promise<void> {
    const packs = new Map<number, number[]>();
    for (const id of ids) {
      const pack = Math.floor(id / rawPackSize);
      packs.set(pack, [...(packs.get(pack) ?? []), id]);
    }
    for (const [pack, list] of packs) {
      const open = await this.load(pack);
      for (const id of list) {
        if (open.messages[id % rawPackSize] === 'big') await this.records.remove(keyOf.big(id));
        if (id % rawPackSize < open.messages.length) open.messages[id % rawPackSize] = 'gone';
      }
      await this.save(open);
    }
  }
}
