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

/**
 * Asks whenever `question` changes. An answer to an earlier question is shown until a newer one is there, and is `waiting`:
 * where questions change faster than they are answered, something is seen all the same. `delay` in milliseconds. `about`: what
 * the question is about, where that changes too: what was answered about another message or view is not shown as if it were
 * about this one.
 */
export function useAnswer<T>(ask: () => Promise<T>, question: string, delay = 0, about = ''): Answer<T> {
  const [answer, setAnswer] = useState<Omit<Answer<T>, 'waiting'> & { of: string | null; about: string }>({
    value: null,
    error: null,
    of: null,
    about,
  });
  const asker = useRef(ask);
  const asks = useRef({ asked: 0, shown: 0 });
  useEffect(() => {
    asker.current = ask;
  });
  useEffect(() => {
    const its = asks.current;
    const number = ++its.asked;
    const show = (value: T | null, error: string | null) => {
      // A newer one came first, or it failed and a newer one is on its way.
      if (number < its.shown || (error !== null && number < its.asked)) return;
      its.shown = number;
      setAnswer({ value, error, of: question, about });
    };
    const go = () =>
      asker.current().then(
        (value) => show(value, null),
        (error: unknown) => show(null, reasonOf(error)),
      );
    const timer = setTimeout(() => void go(), delay);
    return () => clearTimeout(timer);
  }, [question, delay, about]);
  // From the moment at which the question is another, also before it is asked.
  const waiting = answer.of !== question;
  return answer.about === about
    ? { value: answer.value, error: answer.error, waiting }
    : { value: null, error: null, waiting };
}
