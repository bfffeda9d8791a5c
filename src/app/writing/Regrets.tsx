import { Link } from 'react-router';
import type { Draft } from '../../mailroom/border/drafts';
import { mailroom } from '../../mailroom/client';
import { contentOf } from '../../core/writing/draft';
import { exactTime } from '../../core/text/time';
import { viewPath } from '../paths';
import { answerWith, throwAwayDraft } from '../state/drafts';
import { useMailbox } from '../state/overview';
import { usePreferences } from '../state/preferences';
import { useAnswer } from '../ui/useAnswer';

/** What may be regretted once it has gone, in one quiet line; where an older message is answered, the way to the newest. */
export function Regrets({ draft }: { draft: Draft }) {
  const revision = useMailbox((s) => s.revision);
  const manyPeople = usePreferences((s) => s.manyPeople);
  const question = `${draft.id} ${draft.at} ${manyPeople} ${revision}`;
  const { value } = useAnswer(() => mailroom.aboutDraft(contentOf(draft), manyPeople), question, 300);
  const newest = value?.newest;
  if (!value || value.regrets.length === 0) return null;
  return (
    <p
      role="status"
      aria-label="Before it goes"
      className="border-l-4 border-accent bg-base-200 px-3 py-1.5 text-sm [overflow-wrap:anywhere]"
    >
      {value.regrets.join(' ')}
      {newest && (draft.how === 'reply' || draft.how === 'reply all') && (
        <>
          {' '}
          The newest is from {newest.from.name || newest.from.address}, {exactTime(newest.date)}.{' '}
          <Link
            className="link font-semibold"
            to={viewPath({ kind: 'place', place: newest.place }, newest.id)}
            onClick={() => {
              const how = draft.how === 'reply all' ? 'reply all' : 'reply';
              if (draft.at === 0) void throwAwayDraft(draft.id, draft.to, false);
              answerWith(how, [newest.id]);
            }}
          >
            Answer the newest
          </Link>
        </>
      )}
    </p>
  );
}
