import type { Draft } from '../../mailroom/border/drafts';
import { count } from '../../core/text/sentences';

/** So much of it is seen before it is taken into the text, in characters. */
const mostSeen = 20_000;

interface Props {
  draft: Draft;
  onTakeIn: () => void;
  onLeaveOut: () => void;
}

/** What stands below the text, folded: looked at, taken into the text to write within it, or left out. */
export function QuotedBelow({ draft, onTakeIn, onLeaveOut }: Props) {
  const { text } = draft.quoted;
  if (text === '') return null;
  const lines = text.split('\n').length;
  const word = draft.how === 'forward' ? 'Forwarded below' : 'Quoted below';
  return (
    <details className="rounded border border-base-300 text-sm">
      <summary className="cursor-pointer px-3 py-1.5">
        {word}: {lines === 1 ? '1 line' : `${count(lines)} lines`}
      </summary>
      <div className="flex gap-2 px-3 pb-1">
        <button type="button" className="btn btn-ghost btn-xs" onClick={onTakeIn}>
          Write in it
        </button>
        <button type="button" className="btn btn-ghost btn-xs" onClick={onLeaveOut}>
          Leave it out
        </button>
      </div>
      <div
        role="region"
        aria-label={word}
        tabIndex={0}
        dir="auto"
        className="quiet max-h-60 overflow-y-auto px-3 pb-2 [overflow-wrap:anywhere] whitespace-pre-wrap"
      >
        {text.slice(0, mostSeen)}
      </div>
    </details>
  );
}
