// Envelopes: packed by 512 in storage; in memory from when the first of a pack is asked for.
import type { StoredMessage } from '../../core/mail/message';
import { type KeptEnvelope } from './keptEnvelope';
import { envelopePackSize, keyOf, NewerStorage, packEnvelopes, readEnvelopes, SpoiltRecord } from './records';
import type { RawStore } from './rawStore';
import { Sharing } from './interning';
import type { RecordStore } from './recordStore';

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

/** Packs that are asked for at once when all are read. */
const roundSize = 4;

export class EnvelopeStore {
  private readonly packs: (KeptEnvelope[] | undefined)[] = [];
  private readonly sharing = new Sharing();

  constructor(
    private readonly store: RecordStore,
    private readonly raws: RawStore,
    private readonly spoilt: (key: string, reason: string, record: unknown) => void,
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
    const round = (at: number) => this.ensure(packs.slice(at, at + roundSize), count);
    let next = round(0);
    for (let at = 0; at < packs.length; at += roundSize) {
      const current = next;
      next = round(at + roundSize);
      // What it fails by is told when its turn comes.
      next.catch(() => undefined);
      await current;
      reading(Math.min(count, (at + roundSize) * envelopePackSize));
    }
  }

  private async load(pack: number, count: number): Promise<void> {
    const key = keyOf.envelopes(pack);
    const record = await this.store.get(key);
    if (this.packs[pack]) return;
    const expected = Math.min(envelopePackSize, count - pack * envelopePackSize);
    try {
      const rows = readEnvelopes(key, record);
      if (rows.length < expected) throw new SpoiltRecord(key, 'rows: some are missing');
      this.packs[pack] = rows.map((row) => this.sharing.share(row));
    } catch (error) {
      if (error instanceof NewerStorage) throw error;
      this.spoilt(key, error instanceof Error ? error.message : String(error), record);
      this.packs[pack] = await this.rebuild(pack, expected);
    }
  }

  /** Reads the envelopes of a pack again from the raw messages. */
  private async rebuild(pack: number, expected: number): Promise<KeptEnvelope[]> {
    const out: KeptEnvelope[] = [];
    for (let i = 0; i < expected; i++) {
      const stored = await this.raws.read(pack * envelopePackSize + i).catch(() => null);
      out.push(stored ? await this.reread(stored) : unreadable);
    }
    await this.store
      .set(keyOf.envelopes(pack), packEnvelopes(out))
      // Storage that is full keeps the spoilt pack; it is read again the next time.
      .catch(() => undefined);
    return out;
  }

  private pack(pack: number): KeptEnvelope[] {
    const held = this.packs[pack];
    if (!held) throw new Error(`KeptEnvelope pack ${pack} was not made ready.`);
    return held;
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
      writes.push(this.store.set(keyOf.envelopes(pack), packEnvelopes(rows)));
      at += envelopePackSize - keep;
    }
    await Promise.all(writes);
    for (const [pack, rows] of next) this.packs[pack] = rows.map((row) => this.sharing.share(row));
  }
}
