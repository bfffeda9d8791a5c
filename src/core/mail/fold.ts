// How searching compares texts: upper and lower case, accents, and the forms of one character are alike.

import { remembering } from './remembering';

const beyondAscii = /[^\0-\x7f]/;

/**
 * A character without case, accents and form: apart by compatibility (NFKD, UAX #15), its marks left out, then without
 * case (the comparator i;unicode-casemap of RFC 5051 does the same but for the marks). What would fall apart into a blank
 * and a mark, as “´” does, stays: a word must not become two.
 */
const foldCharacter = remembering((character: string): string => {
  const apart = character.normalize('NFKD').replace(/\p{M}+/gu, '');
  return /\s/.test(apart) && !/\s/.test(character) ? character : apart.toUpperCase().toLowerCase();
});

/** A text as it is looked for and looked into: `foldSearch('Höchst, ÉCLAIR')` is `'hochst, eclair'`. */
export function foldSearch(text: string): string {
  if (!beyondAscii.test(text)) return text.toLowerCase();
  let out = '';
  for (const character of text) out += character <= '\x7f' ? character.toLowerCase() : foldCharacter(character);
  return out;
}
