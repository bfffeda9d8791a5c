import { ArrowLeft, Filter, TriangleAlert } from 'lucide-react';
import { useEffect, useState } from 'react';
import { Link } from 'react-router';
import type { Address } from '../../core/mail/address';
import { placeName } from '../../core/mail/place';
import type { View } from '../../mailroom/api';
import { mailroom } from '../../mailroom/client';
import { viewPath } from '../paths';
import { useMailbox } from '../state/mailbox';
import { SenderStanding } from './SenderStanding';
import { InkTag } from '../ui/InkTag';
import { dayOf, exactTime } from '../ui/time';
import { useAnswer } from '../ui/useAnswer';
import { Attachments } from './Attachments';
import { HtmlBody } from './HtmlBody';
import { TextBody } from './TextBody';
import { WhyHere } from './WhyHere';

function People({ word, list }: { word: string; list: readonly Address[] }) {
  if (list.length === 0) return null;
  const shown = list.slice(0, 6);
  return (
    <p className="text-sm">
      <span className="quiet">{word} </span>
      {shown.map((a) => a.name || a.address || 'nobody named').join(', ')}
      {list.length > shown.length && ` and ${list.length - shown.length} more`}
    </p>
  );
}

/** The open message: why it is here, its head, its attachments, its text. */
export function ReadingArea({ id, view }: { id: number; view: View }) {
  const [plain, setPlain] = useState(false);
  const { revision, overview } = useMailbox();
  const { value: message, error, waiting } = useAnswer(() => mailroom.open(id, plain), `${id} ${plain} ${revision}`);

  useEffect(() => {
    // Opening is reading. It is no act of the person's own, so it is not what Undo takes back; and it happens once, so
    // that a message marked unread while it is open stays unread.
    void mailroom.act(crypto.randomUUID(), { ids: [id] }, { do: 'read', value: true, opened: true });
  }, [id]);

  if (!message || message.row.id !== id) {
    if (waiting) return <p className="quiet p-6">Opening…</p>;
    return (
      <div className="p-6">
        <p>{error ?? 'This message is not here any more, or its stored bytes can’t be read.'}</p>
        <Link className="link" to={viewPath(view)}>
          Back to the list
        </Link>
      </div>
    );
  }
  const { row } = message;
  const setup = overview?.setup;
  return (
    <article aria-label="Message" className="flex h-full min-h-0 flex-col">
      <WhyHere id={id} />
      <div className="min-h-0 flex-1 overflow-y-auto">
        <header className="flex flex-col gap-1.5 border-b border-base-300 px-4 py-3">
          <div className="flex items-start gap-2">
            <Link
              to={viewPath(view)}
              className="btn btn-square btn-ghost btn-sm lg:hidden"
              aria-label="Back to the list"
            >
              <ArrowLeft size={18} />
            </Link>
            <h2 className="text-lg leading-snug font-semibold [overflow-wrap:anywhere]" dir="auto">
              {row.subject || 'No subject'}
            </h2>
          </div>
          <div className="flex flex-wrap items-baseline gap-x-3">
            <p className="min-w-0 [overflow-wrap:anywhere]">
              <span className="font-semibold" dir="auto">
                {row.from.name || row.from.address || 'No sender'}
              </span>{' '}
              {row.from.name && <span className="font-mono text-sm">{row.from.address}</span>}
            </p>
            <time className="quiet ml-auto text-sm" dateTime={new Date(row.date).toISOString()}>
              {exactTime(row.date)}
            </time>
          </div>
          <People word="To" list={row.to} />
          <People word="Cc" list={message.cc} />
          {message.listId && (
            <p className="text-sm">
              <span className="quiet">Mailing list </span>
              <span className="font-mono text-sm">{message.listId}</span>
            </p>
          )}
          {row.deletedOn !== null && (
            <p className="text-sm">In the Bin until {dayOf(row.deletedOn)}, then deleted for good.</p>
          )}
          <div className="flex flex-wrap items-center gap-2">
            {setup && row.labels.map((label) => <InkTag key={label} id={label} setup={setup} />)}
            {setup && view.kind !== 'place' && (
              <span className="quiet text-sm">{placeName(row.place, setup.folders)}</span>
            )}
            {setup && row.from.address && <SenderStanding address={row.from.address} id={id} setup={setup} />}
            <Link className="btn btn-ghost btn-xs" to={`/rules/new?from=${id}`}>
              <Filter size={14} aria-hidden /> Rule from this
            </Link>
            {message.alternatives && (
              <label className="ml-auto flex items-center gap-1.5 text-sm">
                <input
                  type="checkbox"
                  className="checkbox checkbox-xs"
                  checked={plain}
                  onChange={(e) => setPlain(e.target.checked)}
                />
                Plain text
              </label>
            )}
          </div>
          {message.attachments.length > 0 && <Attachments id={id} list={message.attachments} />}
        </header>
        {row.damage !== null && (
          <p className="m-4 flex gap-2 border-l-4 border-accent bg-base-200 px-3 py-2">
            <TriangleAlert size={18} className="mt-0.5 shrink-0" aria-hidden />
            <span>
              This message is damaged. {row.damage} What can be read of it is below; its bytes are kept as they came.
            </span>
          </p>
        )}
        <div className="flex flex-col gap-4 px-4 py-4">
          {message.blocks.every((b) => b.content.trim() === '') && <p className="quiet">This message has no text.</p>}
          {message.blocks.map((block, i) =>
            block.kind === 'html' ? (
              <HtmlBody key={i} html={block.content} pictures={message.pictures} />
            ) : (
              block.content.trim() !== '' && <TextBody key={i} text={block.content} />
            ),
          )}
        </div>
      </div>
    </article>
  );
}
