// Answers that are being written: kept as they are typed, so that a reload or a crash loses nothing of them.
import { create } from 'zustand';
import { persist } from 'zustand/middleware';
import type { Answer } from '../../mailroom/border/answers';

/** What the person has typed, by the message that is answered. */
interface AnswersState {
  written: Record<number, Omit<Answer, 'to'>>;
}

export const useAnswers = create<AnswersState>()(
  persist((): AnswersState => ({ written: {} }), { name: 'wide-sort-answers' }),
);

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
