// Long work in slices, so that whoever else waits for the worker is answered in between.

/** Runs something after all that waits already. */
function byMessage(): (then: () => void) => void {
  const { port1, port2 } = new MessageChannel();
  const waiting: (() => void)[] = [];
  port1.onmessage = () => waiting.shift()?.();
  return (then) => {
    waiting.push(then);
    port2.postMessage(null);
  };
}

// Node.js has it as a function of its own, and would not end while a port is open.
const soon = typeof setImmediate === 'function' ? (then: () => void) => void setImmediate(then) : byMessage();

/**
 * Settled once everyone who waited for the worker had a turn. Not by a timer: one that is set within another takes four
 * milliseconds at least (HTML, section 8.6, “timers”), and reading a mailbox would wait for hundreds of them.
 */
export const turn = (): Promise<void> => new Promise(soon);

/** Settled after so many milliseconds. */
export const later = (ms: number): Promise<void> => new Promise((resolve) => setTimeout(resolve, ms));
