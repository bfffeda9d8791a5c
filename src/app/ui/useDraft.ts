import { useState, type Dispatch, type SetStateAction } from 'react';

interface Draft<T> {
  draft: T | null;
  setDraft: Dispatch<SetStateAction<T | null>>;
  /** Closes the draft if it is one of these: what was begun while they were saved or taken off stays open. */
  close: (...ids: readonly string[]) => void;
}

/** Something of a list that is being typed, new or changed; null where nothing is. */
export function useDraft<T extends { id: string }>(): Draft<T> {
  const [draft, setDraft] = useState<T | null>(null);
  const close = (...ids: readonly string[]) => setDraft((open) => (open && ids.includes(open.id) ? null : open));
  return { draft, setDraft, close };
}
