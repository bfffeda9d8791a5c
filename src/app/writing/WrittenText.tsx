import { useCallback, useEffect, useRef, useState } from 'react';
import type { Draft } from '../../mailroom/border/drafts';
import { mailroom } from '../../mailroom/client';
import { wholeText } from '../../core/writing/draftText';
import { blockText } from '../../core/writing/blockText';
import { blockNamed, typedName, type TextBlock } from '../../core/writing/textBlock';
import { useMailbox } from '../state/overview';
import { usePart } from '../ui/usePart';
import { showPicture } from './ownPictures';
import { QuotedBelow } from './QuotedBelow';
import type { DraftPart } from './useDraft';

// The editor is large, and wanted only where rich text is written.
const richPart = () => import('./RichText');

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
function Signature({ draft, change }: DraftPart) {
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

interface WrittenTextProps extends DraftPart {
  onEscape: () => void;
  onFiles: (files: File[], inText: boolean) => Promise<{ contentId: string; name: string }[]>;
}

/** What is written, rich or plain. */
export function WrittenText({ draft, change, onEscape, onFiles }: WrittenTextProps) {
  const Rich = usePart(richPart, draft.rich)?.RichText;
  const blocks = useMailbox((s) => s.overview?.setup.blocks ?? noBlocks);
  const ready = usePictures(draft);
  // Taken into the text, what was quoted is typed on in: the editor begins anew with it.
  const [edition, setEdition] = useState(0);
  const area = useRef<HTMLTextAreaElement>(null);
  // One begins here where somebody is named already when it is opened.
  const [begins] = useState(draft.to !== '');
  const { rich } = draft;
  const onEditor = useCallback(
    (editor: { commands: { focus: (to: 'start') => boolean } } | null) => {
      if (editor && begins) editor.commands.focus('start');
    },
    [begins],
  );
  useEffect(() => {
    if (rich || !begins) return;
    area.current?.focus({ preventScroll: true });
    area.current?.setSelectionRange(0, 0);
  }, [rich, begins]);
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
