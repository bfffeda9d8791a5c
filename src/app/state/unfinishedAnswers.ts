// Answers that are being written: kept as they are typed, so that a reload or a crash loses nothing of them.
import { create } from 'zustand';
import { createJSONStorage, persist, type StateStorage } from 'zustand/middleware';
import type { Answer } from '../../mailroom/border/answers';

/** What the person has typed, by the message that is answered. */
interface AnswersState {
  written: Record<number, Omit<Answer, 'to'>>;
}

const name = 'wide-sort-answers';

/** What the browser refuses to keep stays in this page: typing goes on. */
const lenient: StateStorage = {
  getItem: (key) => localStorage.getItem(key),
  setItem: (key, value) => {
    try {
      localStorage.setItem(key, value);
    } catch {
      // Full, or not allowed.
    }
  },
  removeItem: (key) => localStorage.removeItem(key),
};

export const useAnswers = create<AnswersState>()(
  persist((): AnswersState => ({ written: {} }), { name, storage: createJSONStorage(() => lenient) }),
);

// Another tab keeps its answers in the same place: what it wrote is taken up before anything is written over it.
window.addEventListener('storage', (event) => {
  if (event.key === name) void useAnswers.persist.rehydrate();
});

export function keepAnswer(id: number, answer: Omit<Answer, 'to'>): void {
  useAnswers.setState(({ written }) => ({ written: { ...written, [id]: answer } }));
}

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
