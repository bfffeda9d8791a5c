// The browser's storages, of which no other tab ever tells, for tests of the page's stores in Node.js: imported before the stores.
function storage(): Storage {
  const items = new Map<string, string>();
  return {
    get length() {
      return items.size;
    },
    clear: () => items.clear(),
    getItem: (key) => items.get(key) ?? null,
    key: (n) => [...items.keys()][n] ?? null,
    removeItem: (key) => void items.delete(key),
    setItem: (key, value) => void items.set(key, value),
  };
}

Object.assign(globalThis, {
  localStorage: storage(),
  sessionStorage: storage(),
  addEventListener: () => undefined,
});
