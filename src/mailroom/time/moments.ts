// What falls due: one queue of moments. Each kind of moment says when it is next due, and what is done then. The queue
// goes by the clock on the wall: it wakes for the next moment, and now and then between, since a machine that slept, or
// a clock that was set, brings moments nearer without any timer having run.
import type { Alarm } from './clock';

/** A kind of moment. */
export interface Moment {
  /** What it is called where it fails. */
  readonly name: string;
  /** When it is next due, milliseconds since 1970; null for never. What is past is due at once. */
  next(now: number): number | null;
  /** Does what is due at a moment, and no more. What it throws is tried again later. */
  due(now: number): Promise<unknown>;
}

/** The longest that the queue sleeps, in milliseconds: so late at most is what a set clock or a wake from sleep brings. */
export const longestSleep = 15_000;
/** What failed, or is due again at once, waits so long. */
const shortestWait = 1_000;

export class Moments {
  private stop: () => void = () => undefined;
  private running: Promise<void> | null = null;
  private closed = false;
  /** Before this time a moment is not tried again, by its place in the list. */
  private readonly rest: number[] = [];

  constructor(
    private readonly clock: Alarm,
    private readonly moments: readonly Moment[],
    private readonly failed: (name: string, error: unknown) => void = () => undefined,
  ) {}

  /** What is due may have changed: the queue is planned anew. */
  changed(): void {
    if (!this.closed && !this.running) this.plan();
  }

  /** Nothing falls due any more. */
  close(): void {
    this.closed = true;
    this.stop();
  }

  /** Does what is due now. Settled once all of it is done. */
  wake(): Promise<void> {
    this.stop();
    this.running ??= this.run().finally(() => {
      this.running = null;
      if (!this.closed) this.plan();
    });
    return this.running;
  }

  private isDue(at: number, now: number): boolean {
    const next = this.moments[at].next(now);
    return next !== null && next <= now && (this.rest[at] ?? 0) <= now;
  }

  private async run(): Promise<void> {
    for (const [at, moment] of this.moments.entries()) {
      const now = this.clock.now();
      // A clock that was set back lets nothing rest for ever.
      if ((this.rest[at] ?? 0) > now + shortestWait) this.rest[at] = now;
      if (this.closed || !this.isDue(at, now)) continue;
      this.rest[at] = now + shortestWait;
      await moment.due(now).catch((error: unknown) => this.failed(moment.name, error));
    }
  }

  private plan(): void {
    this.stop();
    const now = this.clock.now();
    let soonest = now + longestSleep;
    for (const [at, moment] of this.moments.entries()) {
      const next = moment.next(now);
      if (next !== null) soonest = Math.min(soonest, Math.max(next, this.rest[at] ?? 0));
    }
    this.stop = this.clock.after(Math.max(0, soonest - now), () => void this.wake());
  }
}

/** A moment that comes again and again, so many milliseconds after it was last done; first at once. */
export function every(name: string, milliseconds: number, due: Moment['due']): Moment {
  let last: number | null = null;
  return {
    name,
    // A clock that was set back puts nothing off.
    next: (now) => (last === null || last > now ? 0 : last + milliseconds),
    due: async (now) => {
      last = now;
      await due(now);
    },
  };
}
