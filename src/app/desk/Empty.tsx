import { Link } from 'react-router';
import { parseQuery } from '../../core/search/query';
import type { Overview } from '../../mailroom/border/overview';
import type { View } from '../../mailroom/border/views';
import { viewPath } from '../paths';

const words: Record<string, [title: string, text: string]> = {
  inbox: ['The Inbox is clear', 'What arrives next rides the sorting line and stands here if no station takes it.'],
  held: ['Nothing is held', 'What you put off waits here, and comes back on top of the Inbox at its moment.'],
  archive: ['Nothing in the Archive', 'Archived messages are kept here for ever.'],
  junk: ['No junk', 'What the Register blocks and the junk filter catches comes here, until the date on each row.'],
  bin: ['The Bin is empty', 'Binned messages are kept for 30 days, with the date shown, then deleted for good.'],
  sent: ['Nothing in Sent', 'What you send stands here.'],
  drafts: [
    'No drafts in your mail',
    'Drafts that come in with your mail stand here, and above them what you are writing.',
  ],
};

/** An empty view: what it would hold, and where to go from here. */
export function Empty({ view, overview, onAll }: { view: View; overview: Overview; onAll: () => void }) {
  if (view.filter || view.account !== undefined)
    return (
      <div className="flex flex-col items-start gap-2 p-6">
        <p className="font-semibold">Nothing here is of that kind</p>
        <p className="quiet">What you asked for leaves nothing to show. The place itself may hold more.</p>
        <button className="btn btn-sm" onClick={onAll}>
          Show all
        </button>
      </div>
    );

  if (view.kind === 'found') {
    const read = parseQuery(view.query);
    return (
      <div className="flex flex-col items-start gap-2 p-6">
        <p className="font-semibold">{read.ok ? 'Nothing found' : 'This query can’t be read'}</p>
        <p className="quiet">
          {!read.ok
            ? read.error
            : view.within
              ? 'No message here is what the query asks for.'
              : 'No message is what the query asks for, in whatever place.'}
        </p>
        {read.ok && view.within && (
          <Link className="btn btn-sm" to={viewPath({ ...view, within: null })}>
            Search everywhere
          </Link>
        )}
      </div>
    );
  }

  const [title, text] =
    (view.kind === 'place' ? words[view.place] : undefined) ??
    (view.kind === 'silenced'
      ? ['No conversation is silenced', 'Silence one (S): what answers it passes the Inbox by, and it stands here.']
      : view.kind === 'label'
        ? ['No message bears this label', 'Rules can label mail as it comes in.']
        : ['Nothing here', 'Rules can sort mail here, or move it by hand (M).']);
  return (
    <div className="flex flex-col items-start gap-2 p-6">
      <p className="font-semibold">{title}</p>
      <p className="quiet">{text}</p>
      {overview.total === 0 && (
        <Link className="btn mt-2 btn-primary btn-sm" to="/mail">
          Bring in your mail
        </Link>
      )}
    </div>
  );
}
