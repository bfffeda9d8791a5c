// Mailboxes as they were stored before all tests (setup.ts), the demo and an empty one of one’s own: each test that begins
// with one gets it back as it stood, instead of beginning it again.
import { readFileSync } from 'node:fs';
import type { Page } from '@playwright/test';

/** All that a page has stored, as JSON with typed arrays in base64. */
export async function storedMailbox(page: Page): Promise<string> {
  return page.evaluate(async () => {
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
    const text = JSON.stringify({ version, stores, keys, values }, (_key, value: unknown) =>
      ArrayBuffer.isView(value)
        ? {
            typed: value.constructor.name,
            base64: (
              new Uint8Array(value.buffer, value.byteOffset, value.byteLength) as unknown as { toBase64(): string }
            ).toBase64(),
          }
        : value,
    );
    return text;
  });
}

/** The mailboxes that are kept: `own` has one account, me@y.test, and no mail. */
export type KeptMailbox = 'demo' | 'own';

/** Where one is kept. */
export const keptAt = (name: KeptMailbox): string => `${process.env.MAILBOXES ?? '.'}/${name}.json`;

/** Puts a kept mailbox into a page’s storage; the page then stands on an address without the application. */
export async function restore(page: Page, name: KeptMailbox): Promise<void> {
  await page.route('**/kept-mailbox.json', (route) =>
    route.fulfill({ contentType: 'application/json', body: readFileSync(keptAt(name)) }),
  );
  await page.goto('/nothing.txt');
  await page.evaluate(async () => {
    const text = await (await fetch('/kept-mailbox.json')).text();
    const arrays = { Uint8Array, Uint16Array, Uint32Array, Int32Array, Float64Array };
    const { version, stores, keys, values } = JSON.parse(text, (_key, value: unknown) => {
      if (typeof value !== 'object' || value === null || !('typed' in value)) return value;
      const { typed, base64 } = value as { typed: keyof typeof arrays; base64: string };
      const bytes = (Uint8Array as unknown as { fromBase64(text: string): Uint8Array<ArrayBuffer> }).fromBase64(base64);
      return new arrays[typed](bytes.buffer);
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
  });
  await page.unroute('**/kept-mailbox.json');
}
