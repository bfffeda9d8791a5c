// The text of a draft: what is written, with what goes below it.
import { signedHtml, signedText } from './blockText';
import type { DraftContent } from './draft';
import { typedText } from './flowed';
import { htmlLines } from './htmlLines';

/** The whole text of a draft: below it the signature (rich text, empty for none), and below that what is quoted. */
export function wholeText(
  { rich, html, text, quoted, signed }: Pick<DraftContent, 'rich' | 'html' | 'text' | 'quoted' | 'signed'>,
  signature: string,
): {
  html: string | null;
  text: string;
} {
  const below = quoted.text ? `\n\n${quoted.text}` : '';
  const own = signed ? signature : '';
  return rich
    ? { html: `${html}${signedHtml(own)}${quoted.html}`, text: '' }
    : { html: null, text: `${text.trimEnd()}${signedText(own)}${below}` };
}

/** The first words of what was written. */
export const firstWords = ({ rich, html, text }: Pick<DraftContent, 'rich' | 'html' | 'text'>): string =>
  (rich ? typedText(htmlLines(html.slice(0, 20_000))) : text.slice(0, 2_000))
    .split('\n')
    .find((line) => line.trim() !== '' && !line.startsWith('>'))
    ?.slice(0, 200) ?? '';
