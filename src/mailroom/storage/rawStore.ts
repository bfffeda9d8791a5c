// The raw messages in storage: packed by 64, read only when one is opened, exported or read again.
import type { Form } from '../../core/mail/mbox';
import type { StoredMessage } from '../../core/mail/message';
import { SpoiltRecord, type Records } from './records';
import type { Stock } from './stock';
import { bytes, int32 } from './schemas';
import { bigMessage, keyOf, rawPackSize } from './keys';
import { z } from 'zod';

const rawPackSchema = z.object({
  /**
   * Length of each message in bytes; -1 for one that has a record of its own, -2 for one that is gone, -3 for one that
   * was lost by damage.
   */
  lengths: int32,
  /** How each is wrapped: 0 for a message by itself, 1 as it stood in an mbox. */
  forms: bytes,
  bytes,
});

const lengthOf = { big: -1, gone: -2, lost: -3 } as const;

/** The bytes of a message in a record of its own; earlier versions wrote them alone. */
const bigRecordSchema = z.union([bytes, z.object({ bytes })]);

/** As many packs as there are in reading at a time where much is read, and one that grows; not more than so many bytes. */
const packsKept = 6;
const bytesKept = 16 << 20;

interface OpenPack {
  pack: number;
  messages: (StoredMessage | 'big' | 'gone' | 'lost')[];
  /** How each big or gone one is wrapped. */
  forms: Form[];
}

const sizeOf = ({ messages }: OpenPack): number =>
  messages.reduce((sum, one) => sum + (typeof one === 'string' ? 0 : one.bytes.length), 0);

/** A pack that was read or written lately, or is being read. `size` in bytes, 0 as long as that is not known. */
interface LatePack {
  open: Promise<OpenPack>;
  size: number;
}

export class RawStore {
  /**
   * The packs that were read or written last, the latest at the end: neighbours are often wanted together, also by two who
   * read at the same time, and the last one grows.
   */
  private readonly lately = new Map<number, LatePack>();

  constructor(private readonly records: Records) {}

  private remember(pack: number, late: LatePack): void {
    this.lately.delete(pack);
    this.lately.set(pack, late);
    let bytes = 0;
    for (const { size } of this.lately.values()) bytes += size;
    for (const [oldest, { size }] of this.lately) {
      if (oldest === pack || (this.lately.size <= packsKept && bytes <= bytesKept)) break;
      this.lately.delete(oldest);
      bytes -= size;
    }
  }

  /** A pack. Throws SpoiltRecord where it can't be read. */
  private load(pack: number): Promise<OpenPack> {
    const known = this.lately.get(pack);
    const late = known ?? { open: this.fetch(pack), size: 0 };
    this.remember(pack, late);
    if (!known)
      late.open.then(
        (open) => {
          late.size = sizeOf(open);
        },
        // What failed once may not fail again.
        () => {
          if (this.lately.get(pack) === late) this.lately.delete(pack);
        },
      );
    return late.open;
  }

  private async fetch(pack: number): Promise<OpenPack> {
    const key = keyOf.raw(pack);
    const record = await this.records.take(key, rawPackSchema);
    const open: OpenPack = { pack, messages: [], forms: [] };
    if (record !== null) {
      const { lengths, forms, bytes } = record;
      const wanted = lengths.reduce((sum, length) => sum + Math.max(0, length), 0);
      if (wanted !== bytes.length || forms.length !== lengths.length || lengths.length > rawPackSize)
        throw new SpoiltRecord(key, 'lengths: they are not those of its messages');
      let at = 0;
      for (let i = 0; i < lengths.length; i++) {
        const form: Form = forms[i] === 1 ? 'mbox' : 'eml';
        open.forms.push(form);
        if (lengths[i] < 0) open.messages.push(lengths[i] === -1 ? 'big' : lengths[i] === -2 ? 'gone' : 'lost');
        else {
          open.messages.push({ bytes: bytes.subarray(at, at + lengths[i]), form });
          at += lengths[i];
        }
      }
    }
    return open;
  }

  /** A pack that is to be written anew: where it can't be read, its messages are lost, it is set aside and told. */
  private async loadToWrite(pack: number): Promise<OpenPack> {
    const key = keyOf.raw(pack);
    try {
      return await this.load(pack);
    } catch (error) {
      if (!(error instanceof SpoiltRecord)) throw error;
      this.records.setAside(key, error.message, await this.records.fetch(key));
      return { pack, messages: [], forms: [] };
    }
  }

  private async save(open: OpenPack): Promise<void> {
    const { messages, forms } = open;
    // What is not there any more leaves no hole.
    for (let i = 0; i < messages.length; i++) {
      messages[i] ??= 'lost';
      forms[i] ??= 'eml';
    }
    const total = sizeOf(open);
    const record = {
      lengths: Int32Array.from(messages, (m) => (typeof m === 'string' ? lengthOf[m] : m.bytes.length)),
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
    this.remember(open.pack, { open: Promise.resolve(open), size: total });
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
        const keep = id % rawPackSize;
        const old: OpenPack = keep === 0 ? { pack, messages: [], forms: [] } : await this.loadToWrite(pack);
        open = { pack, messages: old.messages.slice(0, keep), forms: old.forms.slice(0, keep) };
        while (open.messages.length < keep) {
          open.messages.push('lost');
          open.forms.push('eml');
        }
      }
      open.forms.push(message.form);
      if (message.bytes.length > bigMessage) {
        writes.push(this.records.write(keyOf.big(id), { bytes: message.bytes }));
        open.messages.push('big');
      } else open.messages.push(message);
    }
    if (open) writes.push(this.save(open));
    await Promise.all(writes);
  }

  /**
   * A message's bytes; null where they were deleted for good. Throws SpoiltRecord where they are damaged or missing, and
   * whatever the store fails by.
   */
  async read(id: number): Promise<StoredMessage | null> {
    return this.readIn(await this.load(Math.floor(id / rawPackSize)), id);
  }

  private async readIn(open: OpenPack, id: number): Promise<StoredMessage | null> {
    const at = id % rawPackSize;
    const message = open.messages[at];
    if (message === 'gone') return null;
    if (message === undefined || message === 'lost') throw new SpoiltRecord(keyOf.raw(open.pack), 'it is missing');
    if (message !== 'big') return message;
    const key = keyOf.big(id);
    const big = await this.records.take(key, bigRecordSchema);
    if (big === null) throw new SpoiltRecord(key, 'it is missing');
    return { bytes: 'bytes' in big ? big.bytes : big, form: open.forms[at] };
  }

  /** The same; null also where they are damaged or missing. Throws only what the store fails by. */
  async readable(id: number): Promise<StoredMessage | null> {
    return (await this.readableAll([id]))[0];
  }

  /** The same of several, in their order: neighbours out of one pack, whoever else reads meanwhile. */
  async readableAll(ids: readonly number[]): Promise<(StoredMessage | null)[]> {
    const out: (StoredMessage | null)[] = [];
    let open: OpenPack | null = null;
    for (const id of ids) {
      const pack = Math.floor(id / rawPackSize);
      try {
        if (open?.pack !== pack) open = await this.load(pack);
        out.push(await this.readIn(open, id));
      } catch (error) {
        if (!(error instanceof SpoiltRecord)) throw error;
        out.push(null);
      }
    }
    return out;
  }

  /** Whether a message's bytes were deleted for good. */
  async isGone(id: number): Promise<boolean> {
    try {
      return (await this.load(Math.floor(id / rawPackSize))).messages[id % rawPackSize] === 'gone';
    } catch (error) {
      if (error instanceof SpoiltRecord) return false;
      throw error;
    }
  }

  /** How many messages there are bytes of, at least `count`; `stock`: the packs that there are. */
  async reach(stock: Pick<Stock, 'raw'>, count: number): Promise<number> {
    const last = [...stock.raw].reduce((most, pack) => Math.max(most, pack), -1);
    if (last < 0) return count;
    const open = await this.load(last).catch(() => null);
    return Math.max(count, last * rawPackSize + (open?.messages.length ?? 0));
  }

  /** Deletes the bytes of messages for good. */
  async drop(ids: Iterable<number>): Promise<void> {
    const packs = new Map<number, number[]>();
    for (const id of ids) {
      const pack = Math.floor(id / rawPackSize);
      packs.set(pack, [...(packs.get(pack) ?? []), id]);
    }
    for (const [pack, list] of packs) {
      const open = await this.loadToWrite(pack);
      for (const id of list) {
        await this.records.remove(keyOf.big(id));
        open.messages[id % rawPackSize] = 'gone';
      }
      await this.save(open);
      await this.records.forgetAside(keyOf.raw(pack));
    }
  }
}
