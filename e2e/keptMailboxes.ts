// Mailboxes as they were stored before all tests (kept.setup.ts), the demo and an empty one of one’s own: each test that begins
// with one gets it back as it stood, instead of beginning it again. The tests' server (server.ts) hands them out.
import type { Page } from '@playwright/test';

/**
 * All that a page has stored, as bytes: the length of a description in JSON, the description with a reference
 * for each typed array, and the bytes of all of them.
 */
export async function storedMailbox(page: Page): Promise<Buffer<ArrayBuffer>> {
  const base64 = await page.evaluate(async () => {
    const asked = <T>(request: IDBRequest<T>) =>
      new Promise<T>((resolve, reject) => {
        request.onsuccess = () => resolve(request.result);
        request.onerror = () => reject(request.error);
      });
    const database = await asked(indexedDB.open('wide-sort'));
    const store = database.transaction('records').objectStore('records');
    const [keys, values] = await Promise.all([asked(store.getAllKeys()), asked(store.getAll())]);
    const { version } = database;
    const stores = [...database.objectStoreNames];
    database.close();
    const parts: Uint8Array<ArrayBuffer>[] = [];
    let at = 0;
    const text = JSON.stringify({ version, stores, keys, values }, (_key, value: unknown) => {
      if (!ArrayBuffer.isView(value)) return value;
      const bytes = new Uint8Array(value.buffer as ArrayBuffer, value.byteOffset, value.byteLength);
      parts.push(bytes);
      at += bytes.length;
      return { typed: value.constructor.name, at: at - bytes.length, length: bytes.length };
    });
    const described = new TextEncoder().encode(text);
    const whole = await new Blob([Uint32Array.of(described.length), described, ...parts]).arrayBuffer();
    return (new Uint8Array(whole) as unknown as { toBase64(): string }).toBase64();
  });
  return Buffer.from(base64, 'base64');
}

/** The mailboxes that are kept: `own` has one account, me@y.test, and no mail. */
export type KeptMailbox = 'demo' | 'own';

/** Where the tests' server has them. */
export const keptPath = '/kept-mailboxes/';

/** Deletes all that a page has stored; the page then stands on an address without the application. */
export async function emptyStorage(page: Page): Promise<void> {
  await page.goto('/nothing.txt');
  await page.evaluate(async () => {
    localStorage.clear();
    sessionStorage.clear();
    for (const { name } of await indexedDB.databases())
      await new Promise<void>((resolve, reject) => {
        const deleting = indexedDB.deleteDatabase(String(name));
        deleting.onsuccess = () => resolve();
        deleting.onerror = () => reject(deleting.error);
      });
  });
}

/** Puts a kept mailbox into a page’s storage; the page then stands on an address without the application. */
export async function restore(page: Page, name: KeptMailbox): Promise<void> {
  await emptyStorage(page);
  await page.evaluate(async (address) => {
    const whole = await (await fetch(address)).arrayBuffer();
    const head = 4 + new Uint32Array(whole, 0, 1)[0];
    const arrays = { Uint8Array, Uint16Array, Uint32Array, Int32Array, Float64Array };
    const text = new TextDecoder().decode(new Uint8Array(whole, 4, head - 4));
    const { version, stores, keys, values } = JSON.parse(text, (_key, value: unknown) => {
      if (typeof value !== 'object' || value === null || !('typed' in value)) return value;
      const { typed, at, length } = value as { typed: keyof typeof arrays; at: number; length: number };
      return new arrays[typed](whole.slice(head + at, head + at + length));
    }) as { version: number; stores: string[]; keys: string[]; values: unknown[] };
    await new Promise<void>((resolve, reject) => {
      const request = indexedDB.open('wide-sort', version);
      request.onupgradeneeded = () => {
        for (const name of stores) request.result.createObjectStore(name);
      };
      request.onerror = () => reject(request.error);
      request.onsuccess = () => {
        const writing = request.result.transaction('records', 'readwrite');
        const store = writing.objectStore('records');
        for (const [i, value] of values.entries()) store.put(value, keys[i]);
        writing.oncomplete = () => {
          request.result.close();
          resolve();
        };
        writing.onerror = () => reject(writing.error);
      };
    });
  }, keptPath + name);
}
