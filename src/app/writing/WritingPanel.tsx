import { CalendarClock, FileDown, Send, Trash2, X } from 'lucide-react';
import { useCallback, useEffect, useRef, useState } from 'react';
import { Link } from 'react-router';
import type { Draft, DraftContent } from '../../mailroom/border/drafts';
import { mailroom } from '../../mailroom/client';
import { htmlOfLines } from '../../core/writing/answer';
import { contentOf, wholeText } from '../../core/writing/draft';
import { typedLines, typedText } from '../../core/writing/flowed';
import { htmlLines } from '../../core/writing/htmlLines';
import { blockNamed, blockText, typedName, type TextBlock } from '../../core/writing/textBlock';
import { exactTime } from '../../core/text/time';
import { messages } from '../../core/text/sentences';
import { commandId, say } from '../state/desk';
import { forgetCopy } from '../state/draftCopies';
import { answerWith, openDraft, refreshDrafts, throwAwayDraft } from '../state/drafts';
import { useMailbox } from '../state/overview';
import { usePreferences } from '../state/preferences';
import { saveFile } from '../ui/save';
import { useAnswer } from '../ui/useAnswer';
import { usePart } from '../ui/usePart';
import { FilesAlong } from './FilesAlong';
import { isPicture, showPicture } from './ownPictures';
import { QuotedBelow } from './QuotedBelow';
import { RecipientField } from './RecipientField';
import { SendLater } from './SendLater';
import { useDraft, type Writing } from './useDraft';
import { viewPath } from '../paths';

// The editor is large, and wanted only where rich text is written.
const richPart = () => import('./RichText');

const titles = {
  new: 'New message',
  reply: 'Reply',
  'reply all': 'Reply to all',
  forward: 'Forward',
  attach: 'Forward as a file',
} as const;
const zone = (): number => -new Date().getTimezoneOffset();

/** Takes files along: pictures where they may stand in the text, all others beside it. */
function useFiles({ draft, change }: Writing) {
  return async (files: File[], inText: boolean) => {
    const shown: { contentId: string; name: string }[] = [];
    const added: DraftContent['files'] = [];
    if (!draft) return shown;
    for (const file of files) {
      const id = commandId();
      const bytes = new Uint8Array(await file.arrayBuffer());
      const kept = await mailroom.keepDraftFile(draft.id, id, bytes);
      if (!kept.ok) {
        say({ text: `“${file.name}” was not attached: ${kept.error}`, tone: 'trouble' });
        continue;
      }
      const contentId = inText && isPicture(file.type) ? `${id}@wide-sort` : undefined;
      added.push({
        id,
        name: file.name || 'picture',
        type: file.type || 'application/octet-stream',
        size: bytes.length,
        contentId,
      });
      if (contentId) {
        showPicture(contentId, bytes, file.type);
        shown.push({ contentId, name: file.name });
      }
    }
    if (added.length) change((before) => ({ files: [...before.files, ...added] }));
    return shown;
  };
}

/** The pictures of the text are read before it is shown; true once they are. */
function usePictures(draft: Draft | null): boolean {
  const [ready, setReady] = useState<string | null>(null);
  const id = draft?.id ?? null;
  const first = useRef(draft);
  useEffect(() => {
    first.current = draft;
  });
  useEffect(() => {
    if (id === null) return;
    let current = true;
    const load = async () => {
      for (const { id: file, contentId, type } of first.current?.files ?? []) {
        const bytes = contentId ? await mailroom.draftFile(id, file) : null;
        if (bytes && contentId && current) showPicture(contentId, bytes, type);
      }
      if (current) setReady(id);
    };
    void load();
    return () => {
      current = false;
    };
  }, [id]);
  return id !== null && ready === id;
}

interface PartProps {
  draft: Draft;
  change: Writing['change'];
}

/** From, to, and about what. */
function Heads({ draft, change }: PartProps) {
  const accounts = useMailbox((s) => s.overview?.setup.accounts ?? []);
  const [copies, setCopies] = useState(draft.cc !== '' || draft.bcc !== '');
  return (
    <div className="flex flex-col gap-1.5">
      {accounts.length === 0 ? (
        <p className="text-sm">
          Say first from which address you write:{' '}
          <Link className="link" to="/accounts">
            add an account
          </Link>
          .
        </p>
      ) : (
        <label className="flex items-center gap-2 text-sm">
          <span className="w-14 shrink-0">From</span>
          <select
            className="select w-full min-w-0 truncate pr-8 select-sm"
            value={draft.account}
            onChange={(event) => change({ account: event.target.value })}
          >
            <option value="" disabled hidden>
              Choose …
            </option>
            {accounts.map(({ id, name, address }) => (
              <option key={id} value={id}>
                {name} ({address})
              </option>
            ))}
          </select>
        </label>
      )}
      <RecipientField word="To" value={draft.to} onChange={(to) => change({ to })} autoFocus={draft.to === ''} />
      {copies ? (
        <>
          <RecipientField word="Cc" value={draft.cc} onChange={(cc) => change({ cc })} />
          <RecipientField word="Bcc" value={draft.bcc} onChange={(bcc) => change({ bcc })} />
        </>
      ) : (
        <button type="button" className="link ml-16 min-h-6 self-start text-sm" onClick={() => setCopies(true)}>
          Cc and Bcc
        </button>
      )}
      <label className="flex items-center gap-2 text-sm">
        <span className="w-14 shrink-0">Subject</span>
        <input
          className="input input-sm w-full"
          dir="auto"
          maxLength={2_000}
          value={draft.subject}
          onChange={(event) => change({ subject: event.target.value })}
        />
      </label>
    </div>
  );
}

/** That an older message is answered, and the way to the newest. */
function Regrets({ draft }: { draft: Draft }) {
  const revision = useMailbox((s) => s.revision);
  const { value } = useAnswer(() => mailroom.aboutDraft(contentOf(draft)), `${draft.id} ${draft.at} ${revision}`, 300);
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

const afterWords = { stay: 'leave it where it is', archive: 'archive it', bin: 'put it in the Bin' } as const;

/** What becomes of what is answered once the answer has gone. */
function After({ draft, change }: PartProps) {
  if (draft.answers.length === 0) return null;
  return (
    <label className="flex items-center gap-1.5 text-sm">
      Once sent
      <select
        className="select w-auto select-xs"
        value={draft.after}
        aria-label={`Once sent, with ${draft.answers.length === 1 ? 'the message' : messages(draft.answers.length)}`}
        onChange={(event) => change({ after: event.target.value as Draft['after'] })}
      >
        {(['stay', 'archive', 'bin'] as const).map((after) => (
          <option key={after} value={after}>
            {afterWords[after]}
          </option>
        ))}
      </select>
    </label>
  );
}

/** Sending a draft now or later, or giving it as a file; why it was not. */
function useSending({ draft, flush }: Writing, office: boolean) {
  const [error, setError] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const wait = usePreferences((s) => s.sendWait);
  const go = async (later: number | null) => {
    if (!draft || busy) return;
    setBusy(true);
    setError(null);
    try {
      if (!(await flush())) return;
      if (!office) {
        const file = await mailroom.draftAsFile(draft.id, zone());
        if (!file.ok) return setError(file.error);
        saveFile(file.blob, file.name);
        return say({ text: `Saved ${file.name}. The draft stays in Drafts until it is thrown away.`, tone: 'done' });
      }
      const sent = await mailroom.sendDraft(draft.id, later ?? Date.now() + wait * 1_000, zone());
      if (!sent.ok) return setError(sent.error);
      forgetCopy(draft.id);
      openDraft(null);
      await refreshDrafts();
    } finally {
      setBusy(false);
    }
  };
  return { error, busy, go };
}

interface ButtonsProps extends PartProps {
  office: boolean;
  busy: boolean;
  onSend: (later: number | null) => void;
}

/** What is done with a draft. */
function Buttons({ draft, change, office, busy, onSend }: ButtonsProps) {
  const [later, setLater] = useState(false);
  return (
    <div className="flex flex-wrap items-center gap-2">
      <button
        type="button"
        className="btn btn-primary btn-sm"
        disabled={busy}
        onClick={() => onSend(null)}
        title={office ? 'Send (Ctrl+Enter)' : 'Save as a file, for the program with which you send (Ctrl+Enter)'}
      >
        {office ? <Send size={15} aria-hidden /> : <FileDown size={15} aria-hidden />}
        {office ? 'Send' : 'Save as a file'}
      </button>
      {office && (
        <button type="button" className="btn btn-outline btn-sm" disabled={busy} onClick={() => setLater(true)}>
          <CalendarClock size={15} aria-hidden /> Send later
        </button>
      )}
      {office && <After draft={draft} change={change} />}
      <button
        type="button"
        className="btn btn-ghost btn-sm ml-auto"
        onClick={() => void throwAwayDraft(draft.id, draft.to, draft.at > 0)}
      >
        <Trash2 size={15} aria-hidden /> Throw away
      </button>
      {later && <SendLater onClose={() => setLater(false)} onTake={onSend} />}
    </div>
  );
}

/** Changes between rich and plain text; nothing of the words is lost. */
function toForm({ rich, html, text, quoted }: Draft): Partial<DraftContent> {
  if (rich) return { rich: false, text: typedText(htmlLines(html)), html: '' };
  return { rich: true, html: htmlOfLines(typedLines(text)), text: '', quoted };
}

const noBlocks: readonly TextBlock[] = [];

/** A plain text with the block put in that is named before the cursor; null where none is. */
function withBlock({ value, selectionStart }: HTMLTextAreaElement, blocks: readonly TextBlock[]): string | null {
  const before = value.slice(0, selectionStart);
  const typed = typedName(before.slice(-100));
  const block = typed === null ? null : blockNamed(typed, blocks);
  if (typed === null || !block) return null;
  return before.slice(0, -typed.length - 1) + blockText(block.html).trimEnd() + value.slice(selectionStart);
}

/** The signature of the account, which goes below the text, or not. */
function Signature({ draft, change }: PartProps) {
  const account = useMailbox((s) => s.overview?.setup.accounts.find(({ id }) => id === draft.account));
  const text = blockText(account?.signature ?? '').trim();
  if (text === '') return null;
  return (
    <label className="flex items-start gap-2 text-sm">
      <input
        type="checkbox"
        className="checkbox mt-0.5 checkbox-xs"
        checked={draft.signed}
        onChange={(event) => change({ signed: event.target.checked })}
      />
      <span>
        With the signature
        {draft.signed && (
          <span className="quiet block border-l-2 border-base-300 pl-2 whitespace-pre-wrap" dir="auto">
            {text}
          </span>
        )}
      </span>
    </label>
  );
}

interface TextProps extends PartProps {
  onEscape: () => void;
  onFiles: (files: File[], inText: boolean) => Promise<{ contentId: string; name: string }[]>;
}

/** What is written, rich or plain. */
function Text({ draft, change, onEscape, onFiles }: TextProps) {
  const Rich = usePart(richPart, draft.rich)?.RichText;
  const blocks = useMailbox((s) => s.overview?.setup.blocks ?? noBlocks);
  const ready = usePictures(draft);
  // Taken into the text, what was quoted is typed on in: the editor begins anew with it.
  const [edition, setEdition] = useState(0);
  const area = useRef<HTMLTextAreaElement>(null);
  const begins = draft.to !== '';
  const rich = draft.rich;
  const onEditor = useCallback(
    (editor: { commands: { focus: (to: 'start') => boolean } } | null) => {
      if (editor && begins) editor.commands.focus('start');
    },
    // Only when it is there first.
    // eslint-disable-next-line react-hooks/exhaustive-deps
    [],
  );
  useEffect(() => {
    if (rich || !begins) return;
    area.current?.focus({ preventScroll: true });
    area.current?.setSelectionRange(0, 0);
    // Only when it is there first.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [rich]);
  return (
    <>
      {!draft.rich ? (
        <textarea
          ref={area}
          aria-label="Text"
          dir="auto"
          className="textarea field-sizing-content min-h-40 w-full font-mono text-sm"
          value={draft.text}
          onChange={(event) => change({ text: event.target.value })}
          onKeyDown={(event) => {
            const put = event.key === 'Tab' && !event.shiftKey ? withBlock(event.currentTarget, blocks) : null;
            if (put === null) return;
            event.preventDefault();
            change({ text: put });
          }}
        />
      ) : Rich && ready ? (
        <Rich
          key={`${draft.id} ${edition}`}
          html={draft.html}
          blocks={blocks}
          onChange={(html) => change({ html })}
          onFiles={(files) => onFiles(files, true)}
          onEscape={onEscape}
          onEditor={onEditor}
        />
      ) : (
        <p className="quiet p-3">Preparing …</p>
      )}
      <Signature draft={draft} change={change} />
      <QuotedBelow
        draft={draft}
        onTakeIn={() => {
          // The signature goes below all of it.
          const { html, text } = wholeText({ ...draft, signed: false }, '');
          change({ quoted: { html: '', text: '' }, ...(html === null ? { text } : { html }) });
          setEdition(edition + 1);
        }}
        onLeaveOut={() => change({ quoted: { html: '', text: '' } })}
      />
    </>
  );
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
            <Text draft={draft} change={change} onEscape={close} onFiles={addFiles} />
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
            <Buttons
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
