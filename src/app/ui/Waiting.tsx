import { useEffect, useState } from 'react';
import { useMailbox } from '../state/overview';
import { count } from '../../core/text/sentences';

/** Most answers come sooner, in milliseconds: until then nothing is said. */
const sayAfter = 150;

const readingWords = { rows: 'Reading messages', texts: 'Reading texts' };

interface WaitingProps {
  /** What is waited for: `Counting …`. */
  says: string;
  /** How far it is, where that is known. */
  progress?: { what: string; done: number; total: number } | null;
  /** What came of it, in words: said in the same spot, so that a screen reader hears it. */
  answer?: string | null;
}

/** What is waited for, and how far it is; first of all how far the mailroom is with reading, which comes before. */
export function Waiting({ says, progress = null, answer = null }: WaitingProps) {
  const reading = useMailbox((s) => s.reading);
  const [late, setLate] = useState(false);
  useEffect(() => {
    const timer = setTimeout(() => setLate(true), sayAfter);
    return () => clearTimeout(timer);
  }, []);
  const far = answer !== null || !late ? null : reading ? { ...reading, what: readingWords[reading.what] } : progress;
  return (
    <div className={answer === null ? 'quiet' : ''}>
      {/* Said once by a screen reader; the count would be said at every step. */}
      <span role="status">{answer ?? (late && (far?.what ?? says))}</span>
      {far && (
        <>
          {`: ${count(far.done)} of ${count(far.total)} …`}
          <progress
            className="progress mt-2 block w-full max-w-96 progress-primary"
            aria-label={far.what}
            value={far.done}
            max={far.total}
          />
        </>
      )}
    </div>
  );
}
