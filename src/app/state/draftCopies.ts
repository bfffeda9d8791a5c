// What is typed into drafts, once more outside the database: as text, for whoever finds the database thrown away.
import { create } from 'zustand';
import { createJSONStorage, persist } from 'zustand/middleware';
import { z } from 'zod';
import { lenient } from './lenientStorage';

/** A draft as text; `at`: when it was typed at last, milliseconds since 1970. */
export interface DraftCopy {
  to: string;
  subject: string;
  text: string;
  at: number;
}

interface CopiesState {
  /** By the draft’s id. */
  copies: Record<string, DraftCopy>;
}

const name = 'wide-sort-draft-copies';
/** So many at most, and of each so many characters: it is no second mailbox. */
const most = 20;
const longest = 20_000;

const useCopies = create<CopiesState>()(
  persist((): CopiesState => ({ copies: {} }), { name, storage: createJSONStorage(() => lenient(localStorage)) }),
);

addEventListener('storage', (event) => {
  if (event.key === name) void useCopies.persist.rehydrate();
});

/** What was copied, what was typed last first. */
export const draftCopies = (): DraftCopy[] => Object.values(useCopies.getState().copies).sort((a, b) => b.at - a.at);

export function copyDraft(id: string, copy: DraftCopy): void {
  useCopies.setState(({ copies }) => {
    const all = Object.entries({ ...copies, [id]: { ...copy, text: copy.text.slice(0, longest) } });
    return { copies: Object.fromEntries(all.sort(([, a], [, b]) => b.at - a.at).slice(0, most)) };
  });
}

export function forgetCopy(id: string): void {
  useCopies.setState(({ copies }) => {
    const rest = { ...copies };
    delete rest[id];
    return { copies: rest };
  });
}

/** Forgets all of them: what they were of is gone, too. */
export const forgetCopies = () => useCopies.setState({ copies: {} });

const answersName = 'wide-sort-answers';
const answerSchema = z.object({
  account: z.string(),
  recipients: z.string(),
  copies: z.string(),
  subject: z.string(),
  text: z.string(),
  all: z.boolean().default(false),
});

/** An answer that an earlier version kept: to which message, and what was typed. */
export type OldAnswer = z.infer<typeof answerSchema> & { id: number };

/** The answers that an earlier version kept outside the mailbox. */
export function oldAnswers(): OldAnswer[] {
  try {
    const stored: unknown = JSON.parse(localStorage.getItem(answersName) ?? '{}');
    const kept = z.object({ state: z.object({ written: z.record(z.string(), z.unknown()) }) }).safeParse(stored);
    if (!kept.success) return [];
    return Object.entries(kept.data.state.written).flatMap(([id, answer]) => {
      const read = answerSchema.safeParse(answer);
      return read.success && /^\d+$/.test(id) ? [{ ...read.data, id: Number(id) }] : [];
    });
  } catch {
    return [];
  }
}

export function forgetOldAnswers(): void {
  localStorage.removeItem(answersName);
}
