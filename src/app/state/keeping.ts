// Whether the browser has promised to keep what the page stores, also when the disk runs low (Storage Standard, section
// 4.4: a bucket's mode is “best-effort” until it is “persistent”).
import { create } from 'zustand';

interface Keeping {
  /** Null until the browser has said. */
  kept: boolean | null;
  /** It was asked, and did not promise. */
  refused: boolean;
}

export const useKeeping = create<Keeping>(() => ({ kept: null, refused: false }));

/** Asks the browser to keep it, without a word where it has promised already. Some browsers ask the person. */
export async function askToKeep(): Promise<void> {
  const kept = (await navigator.storage.persisted()) || (await navigator.storage.persist());
  useKeeping.setState({ kept, refused: !kept });
}

/** Looks whether it has promised. */
export async function lookWhetherKept(): Promise<void> {
  useKeeping.setState({ kept: await navigator.storage.persisted() });
}
