// Where records are kept: one store of keys and values, in IndexedDB through localForage.
import localforage from 'localforage';
import { reasonOf } from '../../core/text/sentences';

/** A store of records. Each call is whole or not at all; a failed `set` leaves what was there. */
export interface RecordStore {
  get(key: string): Promise<unknown>;
  set(key: string, value: unknown): Promise<void>;
  remove(key: string): Promise<void>;
  /** The keys that begin so; all of them where nothing is given. */
  keys(prefix?: string): Promise<string[]>;
  clear(): Promise<void>;
}

/** The database, and the store within it. */
const [database, records] = ['wide-sort', 'records'];

const answered = <T>(request: IDBRequest<T>): Promise<T> =>
  new Promise((resolve, reject) => {
    request.onsuccess = () => resolve(request.result);
    request.onerror = () => reject(request.error ?? new Error('the browser says no more'));
  });

/**
 * The keys that begin so, asked of the database itself: localForage goes over all that are there, and so over half of what
 * stands under them. The database is there already.
 */
async function keysFrom(prefix: string): Promise<string[]> {
  const opening = indexedDB.open(database);
  // None is made where it was dropped.
  opening.onupgradeneeded = () => opening.transaction?.abort();
  const opened = await answered(opening);
  try {
    const range = prefix ? IDBKeyRange.bound(prefix, `${prefix}\uffff`) : null;
    return (await answered(opened.transaction(records).objectStore(records).getAllKeys(range))).map(String);
  } finally {
    opened.close();
  }
}

/** The browser's store. */
export function browserStore(): RecordStore {
  const store = localforage.createInstance({ name: database, storeName: records, driver: localforage.INDEXEDDB });
  return {
    get: (key) => store.getItem(key),
    set: async (key, value) => void (await store.setItem(key, value)),
    remove: (key) => store.removeItem(key),
    keys: async (prefix = '') => {
      await store.ready();
      return keysFrom(prefix);
    },
    clear: () => store.clear(),
  };
}

/** A store in memory, for Node.js and for tests. */
export function memoryStore(all = new Map<string, unknown>()): RecordStore {
  return {
    get: async (key) => all.get(key) ?? null,
    set: async (key, value) => void all.set(key, structuredClone(value)),
    remove: async (key) => void all.delete(key),
    keys: async (prefix = '') => [...all.keys()].filter((key) => key.startsWith(prefix)),
    clear: async () => all.clear(),
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
