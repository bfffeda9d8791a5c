// Many entries of the Register read by a worker.
import { wrap, type Remote } from 'comlink';
import type { registerFromCsv } from '../../core/senders/registerCsv';

let worker: Remote<typeof registerFromCsv> | null = null;

/** Reads entries from CSV or a plain list; made at the first call, the worker stays. */
export const readMany: (...args: Parameters<typeof registerFromCsv>) => Promise<ReturnType<typeof registerFromCsv>> = (
  ...args
) => {
  worker ??= wrap<typeof registerFromCsv>(
    new Worker(new URL('./readMany.worker.ts', import.meta.url), { type: 'module', name: 'read many' }),
  );
  return worker(...args);
};
