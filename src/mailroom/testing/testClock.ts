// A clock for tests: it stands still until it is moved.
import type { Alarm } from '../time/clock';

interface Timer {
  at: number;
  then: () => void;
}

export class TestClock implements Alarm {
  private timers: Timer[] = [];
  /** What timers go by: it is never set, as a machine's own time is not. */
  private elapsed = 0;

  constructor(private time: number) {}

  readonly now = (): number => this.time;

  readonly after = (milliseconds: number, then: () => void): (() => void) => {
    const timer = { at: this.elapsed + milliseconds, then };
    this.timers.push(timer);
    return () => void (this.timers = this.timers.filter((one) => one !== timer));
  };

  /** Lets time go by; timers run in their order. */
  async pass(milliseconds: number): Promise<void> {
    const end = this.elapsed + milliseconds;
    for (;;) {
      const [next] = this.timers.filter(({ at }) => at <= end).sort((a, b) => a.at - b.at);
      if (!next) break;
      this.timers = this.timers.filter((one) => one !== next);
      this.time += next.at - this.elapsed;
      this.elapsed = next.at;
      next.then();
      // What it began goes on before the next one runs.
      await new Promise((resolve) => setImmediate(resolve));
    }
    this.time += end - this.elapsed;
    this.elapsed = end;
  }

  /** The machine sleeps, or somebody sets the clock: no timer runs. */
  set(time: number): void {
    this.time = time;
  }
}
