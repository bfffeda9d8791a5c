// How far long work is, told to whoever waits for it.
import type { ServiceHost } from './host';

/** So often it is told, in milliseconds: each telling has a page painted, and that takes of the time it tells of. */
const every = 100;

/**
 * Tells of a job how far it is: at once, then now and then, and that all is done. `now`: a clock in milliseconds.
 */
export function progressOf(
  { tell }: Pick<ServiceHost, 'tell'>,
  job: string,
  now: () => number = () => performance.now(),
): (done: number, total: number) => void {
  let told = -Infinity;
  return (done, total) => {
    if (done < total && now() - told < every) return;
    told = now();
    tell({ kind: 'progress', job, done, total });
  };
}
