// The clock of the mailroom: passed in, so that tests have one of their own.

/** What tells the time. */
export interface Clock {
  /** Milliseconds since 1970. */
  now(): number;
}

/** A clock that also wakes. */
export interface Alarm extends Clock {
  /** Calls back once so many milliseconds have gone by, or later: a machine that sleeps wakes nobody. Returns how to stop. */
  after(milliseconds: number, then: () => void): () => void;
}

/** The clock of the machine. */
export const machineClock: Alarm = {
  now: Date.now,
  after: (milliseconds, then) => {
    const timer = setTimeout(then, milliseconds);
    return () => clearTimeout(timer);
  },
};
