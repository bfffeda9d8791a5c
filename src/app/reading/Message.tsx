import { isCalendar } from '../../core/mail/attachmentKind';
import { MadeOfIt } from '../agenda/MadeOfIt';
import { InvitationIn } from './InvitationIn';
import { ContactRound, FileCode2, Filter, Forward, Printer, Reply, ReplyAll, TriangleAlert } from 'lucide-react';
import { useState } from 'react';
import { Link } from 'react-router';
import type { Address } from '../../core/mail/address';
import { contactAddresses } from '../../core/contacts/contact';
import { bothForms, normalAddress } from '../../core/senders/normal';
import type { Setup } from '../../core/line/setup';
import { placeName } from '../../core/mail/place';
import type { ShownBlock } from '../../core/mail/shown';
import { count } from '../../core/text/sentences';
import type { OpenMessage } from '../../mailroom/border/message';
import type { Row } from '../../mailroom/border/rows';
import { mailroom } from '../../mailroom/client';
import { answerWith } from '../state/drafts';
import { SenderStanding } from './SenderStanding';
import { Marked } from '../ui/Marked';
import { InkTag } from '../ui/InkTag';
import { dayOf, exactTime, isoTime } from '../../core/text/time';
import { useAnswer } from '../ui/useAnswer';
import { useMailbox } from '../state/overview';
import { AddressesInIt } from './AddressesInIt';
import { Attachments } from './Attachments';
import { HtmlBody } from './HtmlBody';
import { useSeeing } from './seen';
import { SourceDialog } from './SourceDialog';
import { Suspicions } from './Suspicions';
import { hasLink, TextBody } from './TextBody';

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

interface MessageProps {
  row: Row;
  setup: Setup;
  /** With its subject as a heading; within a conversation that stands above them all. */
  heading?: boolean;
}

interface HeadProps extends MessageProps {
  message: OpenMessage;
  /** As plain text, though it is written in HTML too. */
  plain: boolean;
  onPlain: (plain: boolean) => void;
}

/** How to answer it, its sender's standing, its labels and where it is. */
function Acts({ row, message, setup, plain, onPlain }: HeadProps) {
  const { id } = row;
  const [source, setSource] = useState(false);
  return (
    <div className="flex flex-wrap items-center gap-x-1 gap-y-1 print:hidden">
      <button className="btn btn-ghost btn-xs" onClick={() => answerWith('reply', [id])} title="Reply (Y)">
        <Reply size={14} aria-hidden /> Reply
      </button>
      <button
        className="btn btn-ghost btn-xs"
        onClick={() => answerWith('reply all', [id])}
        title="Reply to all (Shift+Y)"
      >
        <ReplyAll size={14} aria-hidden /> Reply to all
      </button>
      <button
        className="btn btn-ghost btn-xs"
        onClick={() => answerWith('forward', [id])}
        title="Forward (Shift+F); as a file, byte for byte: Shift+O"
      >
        <Forward size={14} aria-hidden /> Forward
      </button>
      {!row.own &&
        row.from.address !== '' &&
        !contactAddresses(setup.contacts).has(normalAddress(row.from.address)) && (
          <Link
            className="btn btn-ghost btn-xs"
            to={`/contacts?${new URLSearchParams({ add: row.from.address, name: row.from.name }).toString()}`}
            title="Keep a card of the sender"
          >
            <ContactRound size={14} aria-hidden /> Add to contacts
          </Link>
        )}
      {!row.own && <SenderStanding message={message.registered} id={id} setup={setup} />}
      <Link
        className="btn btn-ghost btn-xs"
        data-key="sort-like"
        to={`/rules/new?from=${id}`}
        title="A rule from this message (Shift+R)"
      >
        <Filter size={14} aria-hidden /> Sort mail like this
      </Link>
      <button className="btn btn-ghost btn-xs" onClick={() => window.print()} title="Print what is open">
        <Printer size={14} aria-hidden /> Print
      </button>
      <button
        className="btn btn-ghost btn-xs"
        onClick={() => setSource(true)}
        title="All header fields, and the source"
      >
        <FileCode2 size={14} aria-hidden /> Source
      </button>
      <MadeOfIt id={id} />
      {source && <SourceDialog id={id} onClose={() => setSource(false)} />}
      {row.labels.map((label) => (
        <InkTag key={label} id={label} setup={setup} />
      ))}
      <span className="quiet text-sm">{placeName(row.place, setup.folders)}</span>
      {message.alternatives && (
        <label className="ml-auto flex items-center gap-1.5 text-sm">
          <input
            type="checkbox"
            className="checkbox checkbox-xs"
            checked={plain}
            onChange={(e) => onPlain(e.target.checked)}
          />
          Plain text
        </label>
      )}
    </div>
  );
}

const FullAddress = ({ address }: { address: string }) => (
  <span className="font-mono text-sm">
    <Marked text={bothForms(address)} part="people" />
  </span>
);

/** Who wrote it, to whom, when, what is to be known of it, and what can be done. */
function Head({ row, message, setup, heading, plain, onPlain }: HeadProps) {
  const { id } = row;
  const account = setup.accounts.find((a) => a.id === row.account);
  return (
    <header className="flex flex-col gap-1.5 border-b border-base-300 px-4 py-3">
      {heading && (
        <h2 className="text-lg leading-snug font-semibold [overflow-wrap:anywhere]" dir="auto">
          <Marked text={row.subject || 'No subject'} part="subject" />
        </h2>
      )}
      {/* In a conversation its line says who wrote it and when. */}
      {heading ? (
        <div className="flex flex-wrap items-baseline gap-x-3">
          <p className="min-w-0 [overflow-wrap:anywhere]">
            <span className="font-semibold" dir="auto">
              <Marked text={row.from.name || row.from.address || 'No sender'} part="people" />
            </span>{' '}
            {row.from.name && <FullAddress address={row.from.address} />}
          </p>
          <time className="quiet ml-auto text-sm" dateTime={isoTime(row.date)}>
            {exactTime(row.date)}
          </time>
        </div>
      ) : (
        row.from.address && (
          <p className="[overflow-wrap:anywhere]">
            <span className="quiet">From</span> <FullAddress address={row.from.address} />
          </p>
        )
      )}
      {message.wrongDate && (
        <p className="text-sm">
          <span className="quiet">Shown and sorted by when it was received: </span>
          {message.wrongDate.says === null
            ? 'it has no date of its own that can be read.'
            : `its own date says ${exactTime(message.wrongDate.says)}.`}
        </p>
      )}
      <People word="To" list={row.to} />
      <People word="Cc" list={message.cc} />
      {account && setup.accounts.length > 1 && (
        <p className="text-sm">
          <span className="quiet">{row.own ? 'Sent from' : 'Came by'} the account </span>
          {account.name}
        </p>
      )}
      {message.listId && (
        <p className="text-sm">
          <span className="quiet">Mailing list </span>
          <span className="font-mono text-sm">{message.listId}</span>
        </p>
      )}
      {row.flagged && row.due !== null && (
        <p className={`text-sm ${row.late ? 'font-semibold text-accent' : ''}`}>
          Flagged for {dayOf(row.due)}
          {row.late && ', late'}
        </p>
      )}
      {row.deletedOn !== null && (
        <p className="text-sm">
          In {row.place === 'junk' ? 'Junk' : 'the Bin'} until {dayOf(row.deletedOn)} at the earliest, then deleted for
          good.
        </p>
      )}
      <Acts row={row} message={message} setup={setup} plain={plain} onPlain={onPlain} />
      <AddressesInIt message={message} setup={setup} />
      {message.attachments.length > 0 && (
        <Attachments
          label="Attachments"
          list={message.attachments.map((attachment, index) => ({ id, index, attachment }))}
        />
      )}
    </header>
  );
}

const insteadWords = {
  long: 'This message’s HTML is too long to be shown as a page',
  many: 'This message’s HTML has too many elements to be shown as a page',
  deep: 'This message’s HTML is nested too deep to be shown as a page',
};

/** A part of a message’s text, and what is not shown of it. */
function Block({ block, message }: { block: ShownBlock; message: OpenMessage }) {
  const { kind, content, instead, cut, cutOf } = block;
  if (kind === 'html') return <HtmlBody html={content} pictures={message.pictures} dead={message.dead} />;
  return (
    <>
      {instead !== null && (
        <p className="border-l-4 border-accent bg-base-200 px-3 py-1 text-sm">
          {insteadWords[instead]}. This is its text; “Save .eml” saves all of it as it came.
        </p>
      )}
      {content.trim() !== '' && <TextBody text={content} dead={message.dead} />}
      {cut && (
        <p className="border-l-4 border-accent bg-base-200 px-3 py-1 text-sm">
          Only the first {count(content.length)} {cutOf !== null && `of ${count(cutOf)} `}characters are shown. “Save
          .eml” saves all of it as it came.
        </p>
      )}
    </>
  );
}

/** A message’s text: once it is on the screen the message was seen. */
function Text({ message }: { message: OpenMessage }) {
  const element = useSeeing(message.row.id);
  return (
    <div ref={element} className="flex flex-col gap-4 px-4 py-4">
      {message.blocks.every((b) => b.content.trim() === '') && <p className="quiet">This message has no text.</p>}
      {message.blocks.map((block, i) => (
        <Block key={i} block={block} message={message} />
      ))}
    </div>
  );
}

/** One message opened: its head, its attachments, its text, and how to answer it. */
export function Message({ row, setup, heading = false }: MessageProps) {
  const [plain, setPlain] = useState(false);
  const revision = useMailbox((s) => s.revision);
  const { id } = row;
  const { value: message, error, waiting } = useAnswer(() => mailroom.open(id, plain), `${id} ${plain} ${revision}`);
  if (!message || message.row.id !== id)
    return (
      <p className="quiet p-4">{waiting ? 'Opening…' : (error ?? 'The stored bytes of this message can’t be read.')}</p>
    );
  return (
    <>
      <Head row={row} message={message} setup={setup} heading={heading} plain={plain} onPlain={setPlain} />
      {row.damage !== null && (
        <p className="m-4 flex gap-2 border-l-4 border-accent bg-base-200 px-3 py-2">
          <TriangleAlert size={18} className="mt-0.5 shrink-0" aria-hidden />
          <span>
            This message is damaged. {row.damage} What can be read of it is below; its bytes are kept as they came.
          </span>
        </p>
      )}
      {message.attachments.some(isCalendar) && <InvitationIn id={id} />}
      <Suspicions
        list={message.suspicions}
        dead={message.dead && message.blocks.some((b) => b.kind === 'html' || hasLink(b.content))}
      />
      <Text message={message} />
    </>
  );
}
