// Answers that are being written: kept as they are typed, so that a reload or a crash loses nothing of them.
import { create } from 'zustand';
import { createJSONStorage, persist } from 'zustand/middleware';
import type { Answer } from '../../mailroom/border/answers';
import { lenient } from './lenientStorage';

/** What the person has typed. */
export type Written = Omit<Answer, 'to'>;

/** An answer that was begun: to which message, whether to all, and when it was typed at last (0: not known). */
export interface Unfinished {
  id: number;
  all: boolean;
  at: number;
  written: Written;
}

/** What is kept of each, by the message that is answered; earlier versions kept only what was written. */
type Kept = Written & { all?: boolean; at?: number };

interface AnswersState {
  written: Record<number, Kept>;
}

const name = 'wide-sort-answers';

export const useAnswers = create<AnswersState>()(
  persist((): AnswersState => ({ written: {} }), { name, storage: createJSONStorage(() => lenient(localStorage)) }),
);

// Another tab keeps its answers in the same place: what it wrote is taken up before anything is written over it.
addEventListener('storage', (event) => {
  if (event.key === name) void useAnswers.persist.rehydrate();
});

/** What was written in answer to a message, or null. */
export function writtenTo(id: number): Written | null {
  return unfinished().find((one) => one.id === id)?.written ?? null;
}

/** All that is unfinished, what was typed last first. */
export function unfinished(written = useAnswers.getState().written): Unfinished[] {
  return Object.entries(written)
    .map(([id, { all = false, at = 0, ...typed }]) => ({ id: Number(id), all, at, written: typed }))
    .sort((a, b) => b.at - a.at || b.id - a.id);
}

export function putBack({ id, written, ...more }: Unfinished): void {
  useAnswers.setState((state) => ({ written: { ...state.written, [id]: { ...written, ...more } } }));
}

export const keepAnswer = (id: number, all: boolean, written: Written) => putBack({ id, all, at: Date.now(), written });

export function forgetAnswer(id: number): void {
  useAnswers.setState(({ written }) => {
    const rest = { ...written };
    delete rest[id];
    return { written: rest };
  });
}

/** Forgets all of them: the mail that they answer is gone. */
export function forgetAllAnswers(): void {
  useAnswers.setState({ written: {} });
}
