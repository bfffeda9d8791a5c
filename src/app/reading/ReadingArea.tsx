import { ArrowLeft } from 'lucide-react';
import { useState } from 'react';
import { Link } from 'react-router';
import type { Row } from '../../mailroom/border/rows';
import type { View } from '../../mailroom/border/views';
import { mailroom } from '../../mailroom/client';
import { wherePath, type Where } from '../paths';
import { useMailbox } from '../state/overview';
import { DraftsHere } from '../writing/DraftsHere';
import { usePreferences } from '../state/preferences';
import { useAnswer } from '../ui/useAnswer';
import { messages } from '../../core/text/sentences';
import { Conversation } from './Conversation';
import { Message } from './Message';
import { useMarkingRead } from './useMarkingRead';
import { WhyHere } from './WhyHere';

interface ReadingAreaProps {
  id: number;
  view: View;
  where: Where;
  /** Whether rows are conversations: then all of it is shown. */
  grouped: boolean;
}

/** The reading area: the open message, or the conversation that it belongs to, and the drafts in it. */
export function ReadingArea({ id, view, where, grouped }: ReadingAreaProps) {
  const { revision, overview } = useMailbox();
  const elsewhereAlways = usePreferences((s) => s.elsewhere);
  // Just this once, for this conversation, otherwise than always; and all of it although rows are single messages.
  const [elsewhere, setElsewhere] = useState(elsewhereAlways);
  const [whole, setWhole] = useState(grouped);
  useMarkingRead(id, view, grouped);
  const { value, error, waiting } = useAnswer(
    () => mailroom.conversation(id, view, elsewhere || !whole),
    `${id} ${elsewhere || !whole} ${revision}`,
  );
  const back = wherePath({ ...where, message: null });

  if (!value || !overview) {
    if (waiting) return <p className="quiet p-6">Opening…</p>;
    return (
      <div className="p-6">
        <p>{error ?? 'This message is not here any more, or its stored bytes can’t be read.'}</p>
        <Link className="link" to={back}>
          Back to the list
        </Link>
      </div>
    );
  }
  const chosen: Row | undefined = value.members.find(({ row }) => row.id === id)?.row;
  const all = value.received + value.own;
  return (
    <article aria-label="Message" tabIndex={-1} className="flex h-full min-h-0 flex-col outline-none">
      <WhyHere id={id} />
      <div className="min-h-0 flex-1 overflow-y-auto" data-reading>
        <div className="flex items-center gap-1 px-2 pt-2 lg:hidden">
          <Link to={back} className="btn btn-ghost btn-sm" aria-label="Back to the list">
            <ArrowLeft size={18} /> List
          </Link>
        </div>
        {whole ? (
          <Conversation
            id={id}
            open={value}
            setup={overview.setup}
            elsewhere={elsewhere}
            onElsewhere={setElsewhere}
            onSingle={grouped ? null : () => setWhole(false)}
          />
        ) : (
          <>
            {all > 1 && (
              <p className="flex items-center gap-2 px-4 pt-2 text-sm">
                <span className="quiet">One of a conversation of {messages(all)}.</span>
                <button className="link" data-key="whole" onClick={() => setWhole(true)} title="(H)">
                  Show the conversation
                </button>
              </p>
            )}
            {chosen && <Message row={chosen} heading setup={overview.setup} />}
          </>
        )}
        <DraftsHere members={value.members.map(({ row }) => row.id)} />
      </div>
    </article>
  );
}
