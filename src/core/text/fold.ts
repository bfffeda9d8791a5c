// How searching compares texts: upper and lower case, accents, and the forms of one character are alike.

import { remembering } from '../data/memo';

const beyondAscii = /[^\0-\x7f]/;
const stretchesBeyond = /[^\0-\x7f]+/g;

/**
 * A character without case, accents and form: apart by compatibility (NFKD, UAX #15), its marks left out, then without
 * case (in all three steps, since the capital ẞ
 * has its like only in lower case; the comparator i;unicode-casemap of RFC 5051 does the same but for the marks). What would fall apart into a blank
 * and a mark, as “´” does, stays: a word must not become two.
 */
const foldCharacter = remembering((character: string): string => {
  const apart = character.normalize('NFKD').replace(/\p{M}+/gu, '');
  return /\s/.test(apart) && !/\s/.test(character) ? character : apart.toLowerCase().toUpperCase().toLowerCase();
});

function foldStretch(stretch: string): string {
  let out = '';
  for (const character of stretch) out += foldCharacter(character);
  return out;
}

/** A text as it is looked for and looked into: `foldSearch('Höchst, ÉCLAIR')` is `'hochst, eclair'`. */
export function foldSearch(text: string): string {
  if (!beyondAscii.test(text)) return text.toLowerCase();
  // Stretch by stretch: put together character by character, a long text is a million strings. What was folded stays as
  // it is when the rest is put into lower case.
  return text.replace(stretchesBeyond, foldStretch).toLowerCase();
}
