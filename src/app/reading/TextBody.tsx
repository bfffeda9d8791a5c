import { trimOf } from '../../core/text/trim';
import { useState } from 'react';
import { marksIn } from '../../core/search/marks';
import { Marked, useSought } from '../ui/Marked';
import { joinedParagraphs } from '../../core/mail/flow';
import { stretches, type Stretch } from '../../core/mail/quoted';
import { writeMailto } from '../state/drafts';
import { useNarrow } from '../ui/useNarrow';

const link = /\b(?:https?:\/\/|mailto:)[^\s<>"'”’)\]]+[^\s<>"'”’)\].,;:!?]/g;

/** More links than these stay words: each is an element of the page. */
const mostLinks = 500;
/** A text with more stretches that would be folded is shown as it is. */
const mostFolds = 300;

/** Whether there is a link in a text. */
export const hasLink = (text: string): boolean => text.search(link) >= 0;

/** Text with its links made pressable; `dead`: they stay words. */
function Linked({ text, dead }: { text: string; dead: boolean }) {
  if (dead) return <Marked text={text} part="text" />;
  const pieces: { text: string; href: string | null }[] = [];
  let end = 0;
  for (const match of text.matchAll(link)) {
    if (pieces.length > 2 * mostLinks) break;
    pieces.push({ text: text.slice(end, match.index), href: null }, { text: match[0], href: match[0] });
    end = match.index + match[0].length;
  }
  pieces.push({ text: text.slice(end), href: null });
  return pieces.map((piece, i) =>
    piece.href ? (
      <a
        key={i}
        className="link"
        href={piece.href}
        target="_blank"
        rel="noopener noreferrer"
        onClick={(event) => {
          if (!/^mailto:/i.test(piece.href ?? '')) return;
          event.preventDefault();
          writeMailto(piece.href ?? '');
        }}
      >
        {piece.text}
      </a>
    ) : (
      <Marked key={i} text={piece.text} part="text" />
    ),
  );
}

/** What was said before, or a signature: folded away until it is asked for. */
function Folded({ stretch, dead }: { stretch: Stretch; dead: boolean }) {
  const sought = useSought('text');
  // What was searched for is not folded away.
  const [open, setOpen] = useState(() => marksIn(stretch.text, sought).length > 0);
  const lines = stretch.text.split('\n').filter((line) => line.trim() !== '').length;
  const what = stretch.kind === 'signature' ? 'Signature' : `${lines === 1 ? '1 line' : `${lines} lines`} said before`;
  return (
    <div className="my-1">
      <button
        className="quiet min-h-6 rounded border border-base-300 px-2 text-sm hover:bg-base-200"
        aria-expanded={open}
        onClick={() => setOpen(!open)}
      >
        {open ? `Fold: ${what}` : what}
      </button>
      {open && (
        <div className="quiet mt-1 border-l-2 border-base-300 pl-3">
          <Linked text={stretch.text} dead={dead} />
        </div>
      )}
    </div>
  );
}

const textClass = 'max-w-[46rem] leading-relaxed whitespace-pre-wrap [overflow-wrap:anywhere]';

/** A plain-text body as it was laid out; what was said before and the signature are folded away. */
export function TextBody({ text, dead }: { text: string; dead: boolean }) {
  const narrow = useNarrow();
  const parts = stretches(text.replace(/\r\n/g, '\n'));
  // Where there is no room for the lines as they were broken, their paragraphs flow.
  const shown = (own: string) => (narrow ? joinedParagraphs(own) : own);
  // A message that is nothing but quotes is shown as it is.
  const folds = parts.length <= mostFolds && parts.some((part) => part.kind === 'own' && part.text.trim() !== '');
  if (parts.length > mostFolds)
    return (
      <div dir="auto" className={textClass}>
        <Linked text={text} dead={dead} />
      </div>
    );
  return (
    <div dir="auto" className={textClass}>
      {parts.map((part, i) =>
        part.kind === 'own' || !folds ? (
          part.text.trim() !== '' && (
            <div key={i}>
              <Linked text={shown(trimOf(part.text, '\n'))} dead={dead} />
            </div>
          )
        ) : (
          <Folded key={i} stretch={part} dead={dead} />
        ),
      )}
    </div>
  );
}
