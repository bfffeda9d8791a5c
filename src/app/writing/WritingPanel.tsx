import { X } from 'lucide-react';
import { useState } from 'react';
import type { Draft, DraftContent } from '../../mailroom/border/drafts';
import { mailroom } from '../../mailroom/client';
import { htmlOfLines } from '../../core/writing/answer';
import { typedLines, typedText } from '../../core/writing/flowed';
import { htmlLines } from '../../core/writing/htmlLines';
import { openDraft, refreshDrafts } from '../state/drafts';
import { useMailbox } from '../state/overview';
import { layer } from '../ui/layers';
import { FilesAlong } from './FilesAlong';
import { Heads } from './Heads';
import { Regrets } from './Regrets';
import { SendButtons } from './SendButtons';
import { useDraft, type Writing } from './useDraft';
import { useFiles } from './useFiles';
import { useSending } from './useSending';
import { WrittenText } from './WrittenText';

const titles = {
  new: 'New message',
  reply: 'Reply',
  'reply all': 'Reply to all',
  forward: 'Forward',
  attach: 'Forward as a file',
} as const;

/** Changes between rich and plain text; nothing of the words is lost. */
function toForm({ rich, html, text, quoted }: Draft): Partial<DraftContent> {
  if (rich) return { rich: false, text: typedText(htmlLines(html)), html: '' };
  return { rich: true, html: htmlOfLines(typedLines(text)), text: '', quoted };
}

interface HeadProps {
  title: string;
  /** Null where it is not written here. */
  draft: Draft | null;
  change: Writing['change'];
  onClose: () => void;
}

/** What it is, in which form it is written, and the way out. */
const Head = ({ title, draft, change, onClose }: HeadProps) => (
  <header className="flex items-center gap-2 border-b border-base-300 bg-base-200 px-3 py-1.5">
    <h2 className="flex-1 font-semibold">{title}</h2>
    {draft && (
      <button type="button" className="link min-h-6 text-sm" onClick={() => change(toForm(draft))}>
        {draft.rich ? 'Write plain text' : 'Write rich text'}
      </button>
    )}
    <button
      type="button"
      className="btn btn-square btn-ghost btn-sm"
      aria-label="Close, and keep it in Drafts"
      title="Close, and keep it in Drafts (Esc)"
      onClick={onClose}
    >
      <X size={16} aria-hidden />
    </button>
  </header>
);

/** A message being written, beside whatever is on the screen. */
export function WritingPanel({ id }: { id: string }) {
  const writing = useDraft(id);
  const { draft, where, trouble, change, flush } = writing;
  const office = useMailbox((s) => s.overview?.post.on === true);
  const sending = useSending(writing, office);
  const addFiles = useFiles(writing);
  const [over, setOver] = useState(false);
  const close = () => {
    if (draft?.at === 0) void mailroom.throwDraft(draft.id, true);
    else void flush().then(refreshDrafts);
    openDraft(null);
  };
  const title = draft ? titles[draft.how] : 'Draft';
  return (
    <section
      {...layer}
      aria-label={title}
      className={`flex min-h-0 flex-col border-l-2 bg-base-100 max-lg:fixed max-lg:inset-0 max-lg:z-30 lg:w-[27rem] lg:shrink-0 xl:w-[30rem] 2xl:w-[36rem] ${over ? 'border-primary' : 'border-base-300'}`}
      onKeyDown={(event) => {
        if (event.key === 'Enter' && (event.ctrlKey || event.metaKey)) {
          event.preventDefault();
          void sending.go(null);
        } else if (event.key === 'Escape' && !event.defaultPrevented) {
          event.preventDefault();
          close();
        }
      }}
      onDragOver={(event) => {
        if (!event.dataTransfer.types.includes('Files')) return;
        event.preventDefault();
        setOver(true);
      }}
      onDragLeave={() => setOver(false)}
      onDrop={(event) => {
        setOver(false);
        if (event.defaultPrevented || event.dataTransfer.files.length === 0) return;
        event.preventDefault();
        void addFiles([...event.dataTransfer.files], false);
      }}
    >
      <Head title={title} draft={where === 'here' ? draft : null} change={change} onClose={close} />
      {where === 'another tab' ? (
        <p className="p-4">This draft is being written in another tab. Close it there, and it goes on here.</p>
      ) : where === 'gone' ? (
        <p className="p-4">This draft is not there any more: it was sent, or thrown away.</p>
      ) : !draft ? (
        <p className="quiet p-4">Preparing …</p>
      ) : (
        <>
          <div className="flex min-h-0 flex-1 flex-col gap-2 overflow-y-auto p-3">
            <Heads draft={draft} change={change} />
            <WrittenText draft={draft} change={change} onEscape={close} onFiles={addFiles} />
            <FilesAlong
              files={draft.files}
              onPick={(files) => void addFiles(files, false)}
              onTakeOff={(file) => change((before) => ({ files: before.files.filter((one) => one.id !== file) }))}
            />
          </div>
          <footer className="flex flex-col gap-2 border-t border-base-300 p-3">
            <Regrets draft={draft} />
            {(sending.error ?? draft.error) && (
              <p role="alert" className="font-semibold text-error [overflow-wrap:anywhere]">
                {sending.error ?? draft.error}
              </p>
            )}
            {trouble && (
              <p role="alert" className="border-l-4 border-error bg-base-200 px-3 py-1.5 text-sm">
                Not kept: {trouble} What you typed stands here as long as this page is open.
              </p>
            )}
            <SendButtons
              draft={draft}
              change={change}
              office={office}
              busy={sending.busy}
              onSend={(later) => void sending.go(later)}
            />
            <p className="quiet text-xs">
              {office
                ? 'It stands in Drafts, kept in this browser as you type.'
                : 'Your own mail has no post office here: nothing is sent. Send the file (.eml) with the program that you send with.'}
            </p>
          </footer>
        </>
      )}
    </section>
  );
}
