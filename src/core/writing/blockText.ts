// What stands in a text block or a signature, as plain text, and below what it is put.
import { typedText } from './flowed';
import { htmlLines } from './htmlLines';
import { outgoingHtml } from './outgoingHtml';
import type { TextBlock } from './textBlock';

/** What is wrong with a block as it was typed, in words; null where it can be saved. `others`: the other blocks. */
export function textBlockTrouble({ name, html }: TextBlock, others: readonly TextBlock[]): string | null {
  if (name.trim() === '') return 'Give it a name of a few letters.';
  if (/[;\s]/.test(name.trim())) return 'The name is one word, without a semicolon: it is typed.';
  if (others.some((one) => one.name.toLowerCase() === name.trim().toLowerCase()))
    return 'There is a block of that name already.';
  return blockText(html).trim() === '' ? 'Nothing is written in it.' : null;
}

/** A block or signature as plain text. */
export const blockText = (html: string): string => typedText(htmlLines(outgoingHtml(html)));

/** A signature below a text, behind the mark by which readers know it (RFC 3676, section 4.3). */
export const signedHtml = (signature: string): string =>
  blockText(signature).trim() === '' ? '' : `<p>-- </p>${signature}`;
export const signedText = (signature: string): string => {
  const text = blockText(signature).trimEnd();
  return text.trim() === '' ? '' : `\n\n-- \n${text}`;
};
