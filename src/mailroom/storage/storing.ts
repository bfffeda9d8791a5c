// Storing behind the journal: the state and its meta soon after a command, and what can be computed anew once nothing more
// comes, so that while mail pours in its large records are written once for many commands.
import { DiskFull } from './guarded';
import type { Records } from './records';
import { later } from '../time/turn';
import { reasonOf } from '../../core/text/sentences';

/** Records to be written: each its key and what it holds. */
export type Writes = (readonly [key: string, content: object])[];

/** What is to be stored, asked for when its time comes. */
export interface ToStore {
  /** The state packs of these numbers. */
  packs(numbers: readonly number[]): Writes;
  /** Says how far the state is complete; written after it. */
  meta(): Writes[number];
  /** What changed of what can be computed anew. */
  anew(): Writes;
  trouble(says: string): void;
}

/** How long after a command the state is stored, in milliseconds. */
const stateSoon = 400;
/** How long after a write that failed it is tried again. */
const stateLater = 20_000;
/**
 * What can be computed anew is stored once there was no command for so long, and at the latest so long after the first one.
 * Where the page is closed before, all of it has to be read into memory at the next opening before the first rows.
 */
const [anewQuiet, anewLatest] = [400, 4_000];

export class Storing {
  private readonly dirty = new Set<number>();
  private state: Promise<void> | null = null;
  private storingAnew = false;
  private closed = false;
  private failed = false;
  /** When something last changed; milliseconds, from any moment on. */
  private changedAt = 0;

  constructor(
    private readonly records: Records,
    private readonly stored: ToStore,
  ) {}

  /** A state pack changed. */
  changed(pack: number): void {
    this.dirty.add(pack);
  }

  /** Writes nothing any more. */
  close(): void {
    this.closed = true;
  }

  /** Has what changed stored before long. */
  soon(): void {
    if (this.closed) return;
    this.changedAt = performance.now();
    this.state ??= later(this.failed ? stateLater : stateSoon)
      .then(() => this.flushState())
      .then(
        () => {
          this.failed = false;
        },
        (error: unknown) => {
          // The journal holds everything; the packs are written once they can be.
          this.failed = true;
          // That the disk is full is told once, for all that it keeps from being written.
          if (error instanceof DiskFull) return;
          this.stored.trouble(
            `What was done is kept, but what follows from it could not be written yet (${reasonOf(error)}). It is tried again.`,
          );
        },
      )
      .finally(() => {
        this.state = null;
        if (this.dirty.size) this.soon();
      });
    if (!this.storingAnew) void this.storeAnew();
  }

  /** Stores what can be computed anew, and what changes of it meanwhile. */
  private async storeAnew(): Promise<void> {
    this.storingAnew = true;
    for (let stored = -Infinity; stored <= this.changedAt && !this.closed;) {
      const begun = performance.now();
      do await later(anewQuiet);
      while (performance.now() - this.changedAt < anewQuiet && performance.now() - begun < anewLatest);
      stored = performance.now();
      // Lost, it is computed anew.
      await this.flushAnew().catch(() => undefined);
    }
    // In the same breath as the last look at what changed: what changes from now on begins anew.
    this.storingAnew = false;
  }

  /** Writes everything that is not written yet. */
  async flush(): Promise<void> {
    await this.flushState();
    await this.flushAnew();
  }

  private async flushState(): Promise<void> {
    if (this.closed) return;
    const packs = [...this.dirty];
    this.dirty.clear();
    const records = this.stored.packs(packs);
    const [key, meta] = this.stored.meta();
    try {
      await this.write(records);
      await this.records.write(key, meta);
    } catch (error) {
      for (const pack of packs) this.dirty.add(pack);
      throw error;
    }
  }

  private async flushAnew(): Promise<void> {
    if (!this.closed) await this.write(this.stored.anew());
  }

  private async write(writes: Writes): Promise<void> {
    await Promise.all(writes.map(([key, content]) => this.records.write(key, content)));
  }
}
