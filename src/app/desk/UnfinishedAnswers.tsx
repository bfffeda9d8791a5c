import { SquarePen } from 'lucide-react';
import { useMemo } from 'react';
import { mailroom } from '../../mailroom/client';
import { count } from '../../core/text/sentences';
import { exactTime } from '../../core/text/time';
import { viewPath } from '../paths';
import { startAnswering, throwAway } from '../state/desk';
import { useMailbox } from '../state/overview';
import { unfinished, useAnswers, type Unfinished } from '../state/unfinishedAnswers';
import { useAnswer } from '../ui/useAnswer';
import { useNavigate } from 'react-router';

/** The first line of what was typed, above what is quoted. */
const firstLine = (text: string): string =>
  text
    .slice(0, 2_000)
    .split('\n')
    .find((line) => line.trim() !== '' && !line.startsWith('>')) ?? '';

/** What of an answer that was begun is still here: the place of the message that it answers. */
function useAnswered(answers: readonly Unfinished[]) {
  const revision = useMailbox((s) => s.revision);
  const ids = answers.map(({ id }) => id);
  const { value } = useAnswer(
    async () => {
      const opened = await Promise.all(ids.map((id) => mailroom.open(id, true)));
      return new Map(opened.map((message, at) => [ids[at], message?.row.place ?? null]));
    },
    `${ids.join(' ')} ${revision}`,
  );
  return value;
}

/** The answers that were begun in this browser and not sent yet: they stand in Drafts, above what came with the mail. */
export function UnfinishedAnswers() {
  const written = useAnswers((s) => s.written);
  const answers = useMemo(() => unfinished(written), [written]);
  const places = useAnswered(answers);
  const navigate = useNavigate();
  if (answers.length === 0) return null;
  const goOn = (one: Unfinished) => {
    const place = places?.get(one.id);
    if (!place) return;
    void navigate(viewPath({ kind: 'place', place }, one.id));
    startAnswering(one);
  };
  return (
    <section aria-label="Unfinished answers" className="border-b-2 border-base-300">
      <h2 className="quiet px-4 pt-2 text-sm font-semibold">
        {answers.length === 1 ? '1 unfinished answer' : `${count(answers.length)} unfinished answers`}
      </h2>
      <ul className="max-h-64 overflow-y-auto">
        {answers.map((one) => {
          const gone = places !== null && places.get(one.id) === null;
          const { recipients, subject, text } = one.written;
          return (
            <li key={one.id} className="flex items-center gap-2 border-b border-base-300 px-4 py-1.5">
              <SquarePen size={16} aria-hidden className="shrink-0" />
              <button
                className="min-w-0 flex-1 text-left disabled:cursor-default"
                disabled={gone || places === null}
                onClick={() => goOn(one)}
              >
                <span className="block truncate font-semibold">
                  To {recipients || 'nobody yet'} · {subject}
                </span>
                <span className="quiet block truncate text-sm">
                  {gone ? 'The message that it answers is not here any more. ' : ''}
                  {one.at > 0 && `${exactTime(one.at)} · `}
                  {firstLine(text) || 'Nothing typed yet'}
                </span>
              </button>
              <button
                className="btn btn-ghost btn-xs"
                onClick={() => throwAway(one)}
                aria-label={`Discard the answer to ${recipients || 'nobody yet'}`}
              >
                Discard
              </button>
            </li>
          );
        })}
      </ul>
    </section>
  );
}
