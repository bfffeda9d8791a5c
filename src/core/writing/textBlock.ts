// Text blocks: pieces of writing with a name, put in by typing a few letters; and signatures, which go below a text.
import { z } from 'zod';
import { idSchema } from '../data/id';
import { typedText } from './flowed';
import { htmlLines } from './htmlLines';
import { outgoingHtml } from './outgoingHtml';

/** The most characters of a block or a signature, as rich text. */
export const longestBlock = 50_000;

export const textBlockSchema = z.object({
  id: idSchema,
  /** Typed behind a semicolon, up to what no other name begins with. */
  name: z.string().min(1).max(60),
  /** Rich text. */
  html: z.string().max(longestBlock),
});
export type TextBlock = z.infer<typeof textBlockSchema>;

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

/** The letters behind the last semicolon before the cursor, where a block is being named; null where none is. */
export const typedName = (before: string): string | null => /(?:^|[\s(])[;]([^\s;]{1,60})$/.exec(before)?.[1] ?? null;

/** The block that some letters mean: of that name, or the only one that begins so. */
export function blockNamed(typed: string, blocks: readonly TextBlock[]): TextBlock | null {
  const key = typed.toLowerCase();
  const exact = blocks.find(({ name }) => name.toLowerCase() === key);
  if (exact) return exact;
  const fitting = blocks.filter(({ name }) => name.toLowerCase().startsWith(key));
  return fitting.length === 1 ? fitting[0] : null;
}

/** A signature below a text, behind the mark by which readers know it (RFC 3676, section 4.3). */
export const signedHtml = (signature: string): string =>
  blockText(signature).trim() === '' ? '' : `<p>-- </p>${signature}`;
export const signedText = (signature: string): string => {
  const text = blockText(signature).trimEnd();
  return text.trim() === '' ? '' : `\n\n-- \n${text}`;
};
