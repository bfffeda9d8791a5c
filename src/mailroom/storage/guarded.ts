// A store that notices when the browser has no room, or drops the database under it.
//
// A mark stands in the database as long as it is the same. It is looked for before every write and after every journal
// record: where it is gone, so is all that was stored, and writing on would only seem to keep anything.
import { keyOf } from './keys';
import type { RecordStore } from './recordStore';
import type { Room } from './room';

/** There is no room on the disk; nothing was begun. */
export class DiskFull extends Error {
  constructor() {
    super('The disk is full.');
    this.name = 'QuotaExceededError';
  }
}

/** The database is another one than that which was opened: the browser dropped it with all it held. */
export class StorageLost extends Error {
  constructor() {
    super('the browser has dropped what it stored for this page');
    this.name = 'StorageLost';
  }
}

/** About how many bytes a value takes in the database. */
function sizeOf(value: unknown): number {
  if (typeof value === 'string') return value.length * 2;
  if (ArrayBuffer.isView(value)) return value.byteLength;
  if (Array.isArray(value)) return value.reduce<number>((sum, item) => sum + 8 + sizeOf(item), 8);
  if (typeof value !== 'object' || value === null) return 8;
  return Object.values(value).reduce<number>((sum, item) => sum + 16 + sizeOf(item), 16);
}

/** Who hears what became of the storage. */
export interface StorageHearer {
  /** The database is gone; said once. */
  lost(): void;
  /** There is no room for a write, or there is again; said when it changes. */
  full(now: boolean): void;
}

class GuardedStore implements RecordStore {
  /** What the mark must say; null before it was looked for. */
  private mark: string | null = null;
  private looking: Promise<void> | null = null;
  private lost = false;
  /** A write failed: the database may be closed, and is left alone until there is room to open it. */
  private resting = false;
  /** Writes that have begun. */
  private readonly underWay = new Set<Promise<unknown>>();
  /** Whether there was room the last time; null before it was asked. */
  private full: boolean | null = null;

  constructor(
    private readonly inner: RecordStore,
    private readonly room: Room,
    private readonly hearer: StorageHearer,
    private readonly newMark: () => string,
  ) {}

  private lose(): never {
    if (!this.lost) {
      this.lost = true;
      this.hearer.lost();
    }
    throw new StorageLost();
  }

  /** Throws where there is no room for so many bytes. */
  private need(bytes: number): void {
    const full = !this.room.has(bytes);
    if (full !== this.full) {
      this.full = full;
      this.hearer.full(full);
    }
    if (full) throw new DiskFull();
  }

  /** Throws where the database can't be asked now. */
  private awake(): void {
    if (this.lost) throw new StorageLost();
    if (!this.resting) return;
    this.need(0);
    this.resting = false;
  }

  /** The first time: what the mark says, or a new one. */
  private async findMark(): Promise<void> {
    const found = await this.inner.get(keyOf.mark);
    if (typeof found === 'string') this.mark = found;
    else {
      const mark = this.newMark();
      await this.inner.set(keyOf.mark, mark);
      this.mark = mark;
    }
  }

  private async standing(): Promise<void> {
    if (this.mark === null) {
      this.looking ??= this.findMark().finally(() => (this.looking = null));
      await this.looking;
    } else if ((await this.inner.get(keyOf.mark)) !== this.mark) this.lose();
  }

  private async failing<T>(work: () => Promise<T>): Promise<T> {
    const doing = work();
    this.underWay.add(doing);
    try {
      return await doing;
    } catch (error) {
      if (!(error instanceof StorageLost) && !(error instanceof DiskFull)) {
        // To open the database again the browser needs room.
        this.resting = true;
        this.room.release();
      }
      throw error;
    } finally {
      this.underWay.delete(doing);
    }
  }

  async get(key: string): Promise<unknown> {
    this.awake();
    return this.inner.get(key);
  }

  async set(key: string, value: unknown): Promise<void> {
    this.awake();
    this.need(sizeOf(value));
    await this.failing(async () => {
      await this.standing();
      await this.inner.set(key, value);
      if (key.startsWith(keyOf.journals)) await this.standing();
    });
  }

  async remove(key: string): Promise<void> {
    this.awake();
    await this.failing(async () => {
      await this.standing();
      await this.inner.remove(key);
    });
  }

  async keys(prefix?: string): Promise<string[]> {
    this.awake();
    return (await this.inner.keys(prefix)).filter((key) => key !== keyOf.mark);
  }

  async clear(): Promise<void> {
    // What has looked for the mark already would be written after it, into the empty database.
    await Promise.allSettled(this.underWay);
    await this.inner.clear();
    this.mark = null;
    this.lost = false;
    this.resting = false;
  }
}

/** A store that begins no write for which there is no room, and stops where its database was dropped; `hearer` hears of both. */
export const guarded = (
  inner: RecordStore,
  room: Room,
  hearer: StorageHearer,
  newMark: () => string = () => crypto.randomUUID(),
): RecordStore => new GuardedStore(inner, room, hearer, newMark);
