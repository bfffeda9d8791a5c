import { createContext, Fragment, useContext, useMemo } from 'react';
import { piecesOf, soughtIn, type MarkedPart } from '../../core/search/marks';
import type { Query } from '../../core/search/query';

/** The query by which one found what is on the screen; null where nothing is searched for. */
export const SoughtContext = createContext<Query | null>(null);

/** The texts that are looked for in a part of a message. */
export function useSought(part: MarkedPart): readonly string[] {
  const query = useContext(SoughtContext);
  return useMemo(() => (query ? soughtIn(part, query) : []), [part, query]);
}

/** A text in which what is looked for is marked. */
export function Marked({ text, part }: { text: string; part: MarkedPart }) {
  const sought = useSought(part);
  if (sought.length === 0) return text;
  return piecesOf(text, sought).map((piece, i) =>
    piece.marked ? <mark key={i}>{piece.text}</mark> : <Fragment key={i}>{piece.text}</Fragment>,
  );
}
