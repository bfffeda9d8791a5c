import { textFromHtml } from '../../core/mail/textFromHtml';
import type { Row } from '../../mailroom/border/rows';
import { mailroom } from '../../mailroom/client';
import { useAnswer } from '../ui/useAnswer';
import { exactTime } from '../../core/text/time';
import { Suspicions } from './Suspicions';

/** How much of a message's text is shown where it is only judged. */
const shown = 3_000;

/** A message as plain text, with what looks false about it: nothing in it can be pressed. */
export function SafeMessage({ row, when }: { row: Row; when: string }) {
  const { value: message, error, waiting } = useAnswer(() => mailroom.open(row.id, true), String(row.id));
  const text = (message?.blocks ?? [])
    .map(({ kind, content }) => (kind === 'html' ? textFromHtml(content) : content))
    .join('\n');
  return (
    <>
      <header className="border-b border-base-300 px-4 py-2">
        <h2 className="text-lg leading-snug font-semibold [overflow-wrap:anywhere]" dir="auto">
          {row.subject || 'No subject'}
        </h2>
        <p className="flex flex-wrap items-baseline gap-x-3 [overflow-wrap:anywhere]">
          <span className="font-semibold">{row.from.name || 'No name'}</span>
          <span className="font-mono text-sm">{row.from.address || 'no address'}</span>
          <time className="quiet ml-auto text-sm" title={exactTime(row.date)}>
            {when}
          </time>
        </p>
      </header>
      {message && <Suspicions list={message.suspicions} dead={false} />}
      {/* A long text is scrolled by keys, too. */}
      <div
        role="region"
        aria-label="Text of the message"
        tabIndex={0}
        className="max-h-72 overflow-y-auto px-4 py-3 [overflow-wrap:anywhere] whitespace-pre-wrap"
        dir="auto"
      >
        {waiting && !message ? 'Opening …' : (error ?? (text.trim().slice(0, shown) || 'This message has no text.'))}
      </div>
    </>
  );
}
