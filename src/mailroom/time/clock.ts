// The clock of the mailroom: passed in, so that tests have one of their own.

/** What tells the time. */
export interface Clock {
  /** Milliseconds since 1970. */
  now(): number;
}
