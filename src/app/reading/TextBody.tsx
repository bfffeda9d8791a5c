import { Fragment } from 'react';

const link = /\bhttps?:\/\/[^\s<>"'”’)\]]+[^\s<>"'”’)\].,;:!?]/g;

/** A plain-text body as it was laid out, its links made pressable. */
export function TextBody({ text }: { text: string }) {
  const pieces: { text: string; href: string | null }[] = [];
  let end = 0;
  for (const match of text.matchAll(link)) {
    pieces.push({ text: text.slice(end, match.index), href: null }, { text: match[0], href: match[0] });
    end = match.index + match[0].length;
  }
  pieces.push({ text: text.slice(end), href: null });
  return (
    <div dir="auto" className="max-w-[46rem] leading-relaxed whitespace-pre-wrap [overflow-wrap:anywhere]">
      {pieces.map((piece, i) =>
        piece.href ? (
          <a key={i} className="link" href={piece.href} target="_blank" rel="noopener noreferrer">
            {piece.text}
          </a>
        ) : (
          <Fragment key={i}>{piece.text}</Fragment>
        ),
      )}
    </div>
  );
}
