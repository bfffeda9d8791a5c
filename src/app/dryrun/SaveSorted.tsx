import { useEffect, useRef } from 'react';
import type { DryRunResult } from '../../mailroom/border/rules';
import { messages } from '../../core/text/sentences';
import type { Answer } from '../ui/useAnswer';

interface SaveSortedProps {
  /** What saving does: `Block`. */
  word: string;
  runHere: boolean;
  answer: Answer<DryRunResult>;
  disabled: boolean;
}

/**
 * Saves a standing decision, and says how many messages here it sorts: not before that is known. Any mail that comes makes
 * it be counted anew; a press that falls into that moment counts as soon as the number is known to be the one it fell on.
 */
export function SaveSorted({ word, runHere, answer, disabled }: SaveSortedProps) {
  const button = useRef<HTMLButtonElement>(null);
  const pressedOn = useRef<number | null>(null);
  const total = answer.value?.ok ? answer.value.report.total : null;
  const known = total ? ` and sort ${messages(total)}` : '';
  const waiting = runHere && answer.waiting;
  const sorts = !answer.waiting ? known : disabled ? '' : ', once the dry run is done';
  useEffect(() => {
    if (waiting) return;
    const same = pressedOn.current !== null && pressedOn.current === total;
    pressedOn.current = null;
    if (same && !disabled) button.current?.form?.requestSubmit();
  }, [waiting, total, disabled]);
  return (
    <button
      ref={button}
      className="btn self-start btn-primary aria-disabled:opacity-60"
      disabled={disabled}
      aria-disabled={waiting || undefined}
      onClick={(event) => {
        if (!waiting) return;
        event.preventDefault();
        pressedOn.current = total;
      }}
    >
      {word}
      {runHere && sorts}
    </button>
  );
}
