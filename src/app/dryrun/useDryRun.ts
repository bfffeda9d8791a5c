// A dry run whose messages are shown a part at a time, more of them when asked.
import { useState } from 'react';
import { useAnswer, type Answer } from '../ui/useAnswer';

const firstShown = 200;
const moreAtOnce = 500;

export interface DryRun<T> extends Answer<T> {
  /** Shows more of the messages. */
  more: () => void;
}

/** Asks for a dry run with so many of its messages whenever `question` changes, or more are to be shown. */
export function useDryRun<T>(ask: (most: number) => Promise<T>, question: string, delay: number): DryRun<T> {
  const [most, setMost] = useState(firstShown);
  const answer = useAnswer(() => ask(most), `${question} ${most}`, delay);
  return { ...answer, more: () => setMost(most + moreAtOnce) };
}
