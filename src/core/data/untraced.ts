/**
 * Does some work, at once, in which faults are thrown by the thousand and caught as data: none of them takes down where
 * it was thrown, which costs more than all else about it.
 */
export function untraced<T>(work: () => T): T {
  const { stackTraceLimit } = Error;
  Error.stackTraceLimit = 0;
  try {
    return work();
  } finally {
    Error.stackTraceLimit = stackTraceLimit;
  }
}
