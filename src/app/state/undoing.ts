// What was done here, in this tab, and can be undone: Undo takes back the last of it, and never what another tab did.
import { create } from 'zustand';
import { createJSONStorage, persist } from 'zustand/middleware';
import { mailroom } from '../../mailroom/client';
import { lenient } from './lenientStorage';

/** An act by its number in the Logbook, and what it says there. */
interface Logged {
  seq: number;
  says: string;
}

/** A draft that was thrown away, by its id: it never left this browser, and the Logbook knows nothing of it. */
interface ThrownAway {
  thrown: string;
  says: string;
}

/** What was done here, in words, and by what it is taken back. */
export type Done = Logged | ThrownAway;

interface UndoingState {
  /** Oldest first. */
  done: readonly Done[];
}

/** So many acts can be taken back one after another; the Logbook undoes older ones. */
const most = 100;

/** A tab's own: it survives a reload, and no other tab sees it. */
export const useUndoing = create<UndoingState>()(
  persist((): UndoingState => ({ done: [] }), {
    name: 'wide-sort-done',
    storage: createJSONStorage(() => lenient(sessionStorage)),
  }),
);

export const noteDone = (act: Done) => useUndoing.setState(({ done }) => ({ done: [...done.slice(1 - most), act] }));

export const forgetDone = (one: Done) =>
  useUndoing.setState(({ done }) => ({ done: done.filter((act) => act !== one) }));

/** Nothing of what was done is there any more. */
export const forgetAllDone = () => useUndoing.setState({ done: [] });

/** The last act here of which something is left to undo; what was undone or overtaken since is forgotten. */
export async function lastDone(): Promise<Done | null> {
  for (;;) {
    const last = useUndoing.getState().done.at(-1);
    if (!last || 'thrown' in last) return last ?? null;
    const { says, whyNot } = await mailroom.undoState(last.seq);
    // Another mailbox, which was begun afresh, may have given the number to something else.
    if (whyNot === null && says === last.says) return last;
    forgetDone(last);
  }
}
