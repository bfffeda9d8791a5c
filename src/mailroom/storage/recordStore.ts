// Where records are kept: one store of keys and values, in IndexedDB through localForage.
import localforage from 'localforage';
import { reasonOf } from '../../core/text/sentences';

/** A store of records. Each call is whole or not at all; a failed `set` leaves what was there. */
export interface RecordStore {
  get(key: string): Promise<unknown>;
  set(key: string, value: unknown): Promise<void>;
  remove(key: string): Promise<void>;
  keys(): Promise<string[]>;
  clear(): Promise<void>;
}

/** The browser's store. */
export function browserStore(): RecordStore {
  const store = localforage.createInstance({ name: 'wide-sort', storeName: 'records', driver: localforage.INDEXEDDB });
  return {
    get: (key) => store.getItem(key),
    set: async (key, value) => void (await store.setItem(key, value)),
    remove: (key) => store.removeItem(key),
    keys: () => store.keys(),
    clear: () => store.clear(),
  };
}

/** A store in memory, for Node.js and for tests. */
export function memoryStore(records = new Map<string, unknown>()): RecordStore {
  return {
    get: async (key) => records.get(key) ?? null,
    set: async (key, value) => void records.set(key, structuredClone(value)),
    remove: async (key) => void records.delete(key),
    keys: async () => [...records.keys()],
    clear: async () => records.clear(),
  };
}

/** What went wrong with storage, in words for the person. */
export function storageTrouble(error: unknown): string {
  const name = error instanceof Error ? error.name : '';
  const text = reasonOf(error);
  if (name === 'StorageLost')
    return 'The browser has dropped what it stored for this page, so nothing can be kept and nothing was changed. Save what is left, as the top of the page says.';
  if (name === 'QuotaExceededError' || /quota|full/i.test(text))
    return 'The disk is full, or the space on it that the browser gives to this page, so nothing was changed. Free space on the disk, or save mail to another disk and delete it here, then try again.';
  if (name === 'InvalidStateError' || name === 'SecurityError' || /denied|not allowed/i.test(text))
    return 'The browser refuses to store anything for this page (a private window does that), so nothing was changed. Open Wide Sort in an ordinary window.';
  return `The browser could not store the change (${text}), so nothing was changed. Try again; if it stays, export the mail and reload the page.`;
}
