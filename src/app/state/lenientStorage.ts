// The browser's small storage, where what it refuses to keep stays in this page: what the person does goes on.
import type { StateStorage } from 'zustand/middleware';

export const lenient = (storage: Storage): StateStorage => ({
  getItem: (key) => storage.getItem(key),
  setItem: (key, value) => {
    try {
      storage.setItem(key, value);
    } catch {
      // Full, or not allowed.
    }
  },
  removeItem: (key) => storage.removeItem(key),
});
