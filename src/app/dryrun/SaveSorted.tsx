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

/** Saves a standing decision, and says how many messages here it sorts: not before that is known. */
export function SaveSorted({ word, runHere, answer, disabled }: SaveSortedProps) {
  const total = answer.value?.ok ? answer.value.report.total : 0;
  const known = total > 0 ? ` and sort ${messages(total)}` : '';
  const sorts = !answer.waiting ? known : disabled ? '' : ', once the dry run is done';
  return (
    <button className="btn self-start btn-primary" disabled={disabled || (runHere && answer.waiting)}>
      {word}
      {runHere && sorts}
    </button>
  );
}
