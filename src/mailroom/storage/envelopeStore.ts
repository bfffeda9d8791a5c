// Envelopes: packed by 512 in storage; in memory from when the first of a pack is asked for.
import type { StoredMessage } from '../../core/mail/message';
import { type KeptEnvelope, keptEnvelopeSchema } from './keptEnvelope';
import { SpoiltRecord, readRecord, type Records } from './records';
import { envelopePackSize, keyOf } from './keys';
import type { Stock } from './stock';
import type { RawStore } from './rawStore';
import { Sharing } from './interning';
import { ahead } from '../../core/data/ahead';
import { inSlices } from '../../core/data/slices';
import { z } from 'zod';
import { hashOfText } from '../../core/data/hash';

const unreadable: KeptEnvelope = {
  messageId: '',
  date: null,
  from: { name: '', address: '' },
  to: [],
  cc: [],
  replyTo: [],
  subject: '',
  listId: '',
  references: [],
  deliveredTo: '',
  automatic: false,
  charset: '',
  script: '',
  attachments: [],
  preview: '',
  textLength: 0,
  size: 0,
  key: '',
  damage: 'Its stored bytes can’t be read any more: the browser’s storage was damaged.',
};

/** What stays of a message that was deleted for good. */
const erased: KeptEnvelope = { ...unreadable, damage: null };

/** `form`: which fields an envelope had when it was written; absent from what earlier versions wrote. */
const envelopePackSchema = z.object({ rows: z.string(), form: z.number().optional() });
const envelopeRows = z.array(keptEnvelopeSchema);
/** When envelopes get another field, those of before are looked through. */
const envelopeForm = hashOfText(Object.keys(keptEnvelopeSchema.shape).join(' '));

/** What the record of a pack of envelopes holds. */
export const packEnvelopes = (envelopes: readonly KeptEnvelope[]): { rows: string; form: number } => ({
  rows: JSON.stringify(envelopes),
  form: envelopeForm,
});

/** The envelopes in a record; `asWritten`: they are written as they are now. Throws SpoiltRecord. */
function readEnvelopes(key: string, record: unknown): { envelopes: KeptEnvelope[]; asWritten: boolean } {
  const { rows, form } = readRecord(key, record, envelopePackSchema);
  let parsed: unknown;
  try {
    parsed = JSON.parse(rows);
  } catch {
    throw new SpoiltRecord(key, 'rows: no JSON');
  }
  // What came back just as it was written is what was written: to look through a hundred thousand takes a second.
  if (form === envelopeForm) return { envelopes: parsed as KeptEnvelope[], asWritten: true };
  const checked = envelopeRows.safeParse(parsed);
  if (!checked.success) throw new SpoiltRecord(key, `rows: ${checked.error.issues[0].message}`);
  return { envelopes: checked.data, asWritten: false };
}

/** Packs that are asked for at once when all are read. */
const roundSize = 4;

export class EnvelopeStore {
  private readonly packs: (KeptEnvelope[] | undefined)[] = [];
  private readonly sharing = new Sharing();

  constructor(
    private readonly records: Records,
    private readonly raws: RawStore,
    /** Reads an envelope again from the stored message. */
    private readonly reread: (stored: StoredMessage) => Promise<KeptEnvelope>,
  ) {}

  /** Makes the packs ready that hold these ids. */
  async ensure(ids: Iterable<number>, count: number): Promise<void> {
    const wanted = new Set<number>();
    for (const id of ids) wanted.add(Math.floor(id / envelopePackSize));
    await Promise.all([...wanted].filter((pack) => !this.packs[pack]).map((pack) => this.load(pack, count)));
  }

  /** Makes all packs ready; `count` messages in all. `reading` hears how many are. */
  async ensureAll(count: number, reading: (done: number) => void = () => undefined): Promise<void> {
    const packs = Array.from({ length: Math.ceil(count / envelopePackSize) }, (_, pack) => pack * envelopePackSize);
    // In rounds, so that rows asked for in the meantime need not wait for all of them. The next one is on its way from
    // storage while this one is read.
    let done = 0;
    for await (const [round] of ahead([...inSlices(packs, roundSize)], (round) => this.ensure(round, count))) {
      done += round.length * envelopePackSize;
      reading(Math.min(count, done));
    }
  }

  private async load(pack: number, count: number): Promise<void> {
    const key = keyOf.envelopes(pack);
    const record = await this.records.fetch(key);
    if (this.packs[pack]) return;
    const expected = Math.min(envelopePackSize, count - pack * envelopePackSize);
    try {
      const { envelopes, asWritten } = readEnvelopes(key, record);
      if (envelopes.length < expected) throw new SpoiltRecord(key, 'rows: some are missing');
      this.packs[pack] = envelopes.map((row) => this.sharing.share(row));
      // Of an earlier version: written as now, it need not be looked through the next time.
      if (!asWritten) void this.records.write(key, packEnvelopes(envelopes)).catch(() => undefined);
    } catch (error) {
      if (!(error instanceof SpoiltRecord)) throw error;
      this.records.setAside(key, error.message, record);
      this.packs[pack] = await this.rebuild(pack, expected);
    }
  }

  /** Reads the envelopes of a pack again from the raw messages. */
  private async rebuild(pack: number, expected: number): Promise<KeptEnvelope[]> {
    const out: KeptEnvelope[] = [];
    for (let i = 0; i < expected; i++) {
      const id = pack * envelopePackSize + i;
      const stored = await this.raws.readable(id);
      out.push(stored ? await this.reread(stored) : (await this.raws.isGone(id)) ? erased : unreadable);
    }
    await this.records
      .write(keyOf.envelopes(pack), packEnvelopes(out))
      // Storage that is full keeps the spoilt pack; it is read again the next time.
      .catch(() => undefined);
    return out;
  }

  /** How many messages there are envelopes of, at least `count`; `stock`: the packs that there are. */
  async reach(stock: Pick<Stock, 'envelopes'>, count: number): Promise<number> {
    const last = [...stock.envelopes].reduce((most, pack) => Math.max(most, pack), -1);
    if (last < 0) return count;
    const key = keyOf.envelopes(last);
    try {
      const { envelopes } = readEnvelopes(key, await this.records.fetch(key));
      return Math.max(count, last * envelopePackSize + envelopes.length);
    } catch (error) {
      if (!(error instanceof SpoiltRecord)) throw error;
      return count;
    }
  }

  private pack(pack: number): KeptEnvelope[] {
    const held = this.packs[pack];
    if (!held) throw new Error(`KeptEnvelope pack ${pack} was not made ready.`);
    return held;
  }

  /** The envelope of a message where it is in memory; null where not. */
  held(id: number): KeptEnvelope | null {
    return this.packs[Math.floor(id / envelopePackSize)]?.[id % envelopePackSize] ?? null;
  }

  /** The envelope of a message whose pack was made ready. */
  get(id: number): KeptEnvelope {
    return this.pack(Math.floor(id / envelopePackSize))[id % envelopePackSize] ?? unreadable;
  }

  /** Writes envelopes with the ids from `first` on. */
  async append(first: number, envelopes: readonly KeptEnvelope[]): Promise<void> {
    const writes: Promise<void>[] = [];
    let at = 0;
    const next: [number, KeptEnvelope[]][] = [];
    while (at < envelopes.length) {
      const id = first + at;
      const pack = Math.floor(id / envelopePackSize);
      const keep = id % envelopePackSize;
      if (keep > 0) await this.ensure([id], first);
      const old = keep > 0 ? this.pack(pack).slice(0, keep) : [];
      const rows = [...old, ...envelopes.slice(at, at + envelopePackSize - keep)];
      next.push([pack, rows]);
      writes.push(this.records.write(keyOf.envelopes(pack), packEnvelopes(rows)));
      at += envelopePackSize - keep;
    }
    await Promise.all(writes);
    for (const [pack, rows] of next) this.packs[pack] = rows.map((row) => this.sharing.share(row));
  }

  /** Takes everything that the envelopes of messages say out of memory and storage. */
  async erase(ids: readonly number[], count: number): Promise<void> {
    await this.ensure(ids, count);
    const packs = new Set<number>();
    for (const id of ids) {
      const pack = Math.floor(id / envelopePackSize);
      packs.add(pack);
      this.pack(pack)[id % envelopePackSize] = erased;
    }
    for (const pack of packs) {
      const key = keyOf.envelopes(pack);
      await this.records.write(key, packEnvelopes(this.pack(pack)));
      await this.records.forgetAside(key);
    }
  }
}
