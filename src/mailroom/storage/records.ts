// Records: how everything that is stored is written and read back. Each bears a version, and a checksum of what it holds
// and of the key under which it stands. What they hold say the rooms that keep them; the keys are in keys.ts.
import type { z } from 'zod';
import { checksumOf } from './checksum';
import { keyOf } from './keys';
import type { RecordStore } from './recordStore';
import { later } from '../time/turn';

/** The version of all records. An older one is brought up in {@link migrate}; a newer one is refused. */
const recordVersion = 1;

/** A record that could not be read: what it should have been, and why it is not. */
export class SpoiltRecord extends Error {
  constructor(
    readonly key: string,
    reason: string,
  ) {
    super(reason);
    this.name = 'SpoiltRecord';
  }
}

/** Storage written by a newer version of the program: nothing may be touched. */
export class NewerStorage extends Error {
  constructor() {
    super(
      'The mail in this browser was stored by a newer version of Wide Sort. Nothing was changed; start the newer version to read it.',
    );
    this.name = 'NewerStorage';
  }
}

/** Brings a record of an older version up to {@link recordVersion}. There is none older than 1 yet. */
function migrate(record: { v: number }): unknown {
  return record;
}

/** A record as it is stored. */
const sealed = (key: string, content: object): object => ({
  v: recordVersion,
  ...content,
  checksum: checksumOf(key, content),
});

/** Whether a record is what was written under its key; what earlier versions wrote bears no checksum. */
function isWhole(key: string, record: unknown): boolean {
  if (typeof record !== 'object' || record === null || !('checksum' in record)) return true;
  const { checksum, ...content } = { ...(record as { checksum: unknown }), v: undefined };
  return checksum === checksumOf(key, content);
}

/** Checks a record that came out of storage. Throws SpoiltRecord, or NewerStorage where a newer version wrote it. */
export function readRecord<T>(key: string, record: unknown, schema: z.ZodType<T>): T {
  const version = typeof record === 'object' && record !== null && 'v' in record ? record.v : null;
  if (typeof version === 'number' && version > recordVersion) throw new NewerStorage();
  // Bytes alone bear no version: so the first version wrote large messages.
  if (!ArrayBuffer.isView(record) && version !== recordVersion) throw new SpoiltRecord(key, 'v: it is no record');
  const parsed = schema.safeParse(typeof version === 'number' ? migrate(record as { v: number }) : record);
  if (!parsed.success) {
    const issue = parsed.error.issues[0];
    throw new SpoiltRecord(key, `${issue.path.join('.') || 'record'}: ${issue.message}`);
  }
  if (!isWhole(key, record)) throw new SpoiltRecord(key, 'checksum: it is not what was written');
  return parsed.data;
}

/** How long is waited before a read that failed is tried again, in milliseconds. */
const pauses = [20, 200];

/** The mailbox of these records was deleted meanwhile. */
export class Closed extends Error {
  constructor() {
    super('everything was deleted meanwhile');
    this.name = 'Closed';
  }
}

/** The records of one mailbox. */
export class Records {
  /** `now`: milliseconds since 1970; `told` hears of records that can't be read. */
  constructor(
    readonly store: RecordStore,
    private readonly now: () => number,
    private readonly told: (says: string) => void,
  ) {}

  private open = true;
  /** The records that were set aside since opening. */
  private readonly aside = new Set<string>();

  /** Writes nothing any more: what is still under way may not come back into storage that was emptied. */
  close(): void {
    this.open = false;
  }

  async write(key: string, content: object): Promise<void> {
    if (!this.open) throw new Closed();
    await this.store.set(key, sealed(key, content));
  }

  async remove(key: string): Promise<void> {
    if (!this.open) throw new Closed();
    await this.store.remove(key);
  }

  /** The keys that begin so; all of them, where nothing is given: of a large mailbox that takes a while. */
  async keys(prefix?: string): Promise<string[]> {
    try {
      return await this.store.keys(prefix);
    } catch {
      await later(pauses[0]);
      return this.store.keys(prefix);
    }
  }

  /** Tells the person of a trouble. */
  tell(says: string): void {
    this.told(says);
  }

  /** What the store holds under a key, asked for again where it fails: a read error mostly passes. */
  async fetch(key: string): Promise<unknown> {
    for (const pause of pauses) {
      try {
        return await this.store.get(key);
      } catch {
        await later(pause);
      }
    }
    return this.store.get(key);
  }

  /** What stands under a key; null where nothing does. Throws SpoiltRecord where it can't be read. */
  async take<T>(key: string, schema: z.ZodType<T>): Promise<T | null> {
    const record = await this.fetch(key);
    return record === null ? null : readRecord(key, record, schema);
  }

  /** The same; what can't be read is set aside and told. */
  async read<T>(key: string, schema: z.ZodType<T>): Promise<T | null | 'spoilt'> {
    const record = await this.fetch(key);
    if (record === null) return null;
    try {
      return readRecord(key, record, schema);
    } catch (error) {
      if (!(error instanceof SpoiltRecord)) throw error;
      this.setAside(key, error.message, record);
      return 'spoilt';
    }
  }

  /** The same of what can be made anew: null also where it can't be read. */
  async readDerived<T>(key: string, schema: z.ZodType<T>): Promise<T | null> {
    return (await this.fetchDerived(key, schema))();
  }

  /** The same in two steps: what was fetched is looked through when it is asked for. */
  async fetchDerived<T>(key: string, schema: z.ZodType<T>): Promise<() => T | null> {
    const record = await this.fetch(key);
    return () => {
      try {
        return record === null ? null : readRecord(key, record, schema);
      } catch (error) {
        if (!(error instanceof SpoiltRecord)) throw error;
        return null;
      }
    };
  }

  /** Keeps a record that can't be read where nothing will overwrite it, and tells. */
  setAside(key: string, reason: string, record: unknown): void {
    this.told(`A stored record (${key}) could not be read (${reason}). It was set aside, and the rest was loaded.`);
    if (!this.open) return;
    this.aside.add(key);
    void this.store.set(keyOf.aside(key, this.now()), record).catch(() => undefined);
  }

  /** Forgets what was set aside of a record: what was deleted for good must not stand there. */
  async forgetAside(key: string): Promise<void> {
    for (const one of await this.keys(keyOf.asidesOf(key))) await this.remove(one);
  }
}
