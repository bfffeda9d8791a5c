// The raw messages in storage: packed by 64, read only when one is opened, exported or read again.
import type { Form } from '../../core/mail/mbox';
import { messageOfStored, type Message, type StoredMessage } from '../../core/mail/message';
import {
  bigMessage,
  bigRecordSchema,
  keyOf,
  rawPackSchema,
  rawPackSize,
  readRecord,
  recordVersion,
  type RawPack,
} from './records';
import type { RecordStore } from './recordStore';

interface OpenPack {
  pack: number;
  messages: (StoredMessage | 'big' | 'gone')[];
  /** How each big or gone one is wrapped. */
  forms: Form[];
}

export class RawStore {
  /** The last pack read or written: neighbours are often wanted together, and the last one grows. */
  private cached: OpenPack | null = null;

  constructor(private readonly store: RecordStore) {}

  private async load(pack: number): Promise<OpenPack> {
    if (this.cached?.pack === pack) return this.cached;
    const key = keyOf.raw(pack);
    const record = await this.store.get(key);
    const open: OpenPack = { pack, messages: [], forms: [] };
    if (record !== null) {
      const { lengths, forms, bytes } = readRecord(key, record, rawPackSchema);
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
    const record: RawPack = {
      v: recordVersion,
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
    await this.store.set(keyOf.raw(open.pack), record);
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
        writes.push(this.store.set(keyOf.big(id), message.bytes));
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
    const bytes = await this.store.get(keyOf.big(id));
    const parsed = bigRecordSchema.safeParse(bytes);
    return parsed.success ? { bytes: parsed.data, form: open.forms[at] } : null;
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
        if (open.messages[id % rawPackSize] === 'big') await this.store.remove(keyOf.big(id));
        if (id % rawPackSize < open.messages.length) open.messages[id % rawPackSize] = 'gone';
      }
      await this.save(open);
    }
  }
}
