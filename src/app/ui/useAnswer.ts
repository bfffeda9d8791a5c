// An answer from the mailroom, asked again whenever the mailbox changes.
import { useEffect, useRef, useState } from 'react';
import { reasonOf } from '../../core/text/sentences';

/** What was asked and what came of it. The last answer stays while a new one is on its way. */
export interface Answer<T> {
  value: T | null;
  error: string | null;
  /** An answer to the newest question is still to come. */
  waiting: boolean;
}

/** Asks whenever `question` changes; an answer that was overtaken is dropped. `delay` in milliseconds. */
export function useAnswer<T>(ask: () => Promise<T>, question: string, delay = 0): Answer<T> {
  const [answer, setAnswer] = useState<Omit<Answer<T>, 'waiting'> & { of: string | null }>({
    value: null,
    error: null,
    of: null,
  });
  const asker = useRef(ask);
  useEffect(() => {
    asker.current = ask;
  });
  useEffect(() => {
    let current = true;
    const go = () =>
      asker.current().then(
        (value) => current && setAnswer({ value, error: null, of: question }),
        (error: unknown) => current && setAnswer({ value: null, error: reasonOf(error), of: question }),
      );
    const timer = setTimeout(() => void go(), delay);
    return () => {
      current = false;
      clearTimeout(timer);
    };
  }, [question, delay]);
  // From the moment at which the question is another, also before it is asked.
  return { value: answer.value, error: answer.error, waiting: answer.of !== question };
}
