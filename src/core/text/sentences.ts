// Sentences and numbers that many say: one way for each.

/** A number with its thousands parted: `12,345`. Written by hand, since Intl takes longer than the first rows may. */
export const count = (n: number): string => String(n).replace(/\B(?=(\d{3})+$)/g, ',');

/** `1 message`, `12 messages`, `1,200 messages`. */
export const messages = (n: number): string => `${count(n)} message${n === 1 ? '' : 's'}`;

/** `Archived 3 messages`, or `Archived “Berth 4 closed”` for a single one. */
export function didTo(done: string, n: number, subject: string | null, where = ''): string {
  const what = n === 1 && subject !== null ? `“${short(subject || 'No subject')}”` : messages(n);
  return `${done} ${what}${where}`;
}

/** A subject cut to a length that fits a line. */
export const short = (text: string, length = 60): string =>
  text.length <= length ? text : `${text.slice(0, length - 1).trimEnd()}…`;

/** Why something failed, in words. */
export const reasonOf = (error: unknown): string => (error instanceof Error ? error.message : String(error));

/** Words as a sentence: with a full stop, where none ends them. */
export const sentence = (words: string): string => (/[.!?…]$/.test(words) ? words : `${words}.`);

/** Words in a row: `Monday, Tuesday and Friday`. */
export const andWords = (words: readonly string[]): string =>
  words.length < 2 ? (words[0] ?? '') : `${words.slice(0, -1).join(', ')} and ${words[words.length - 1]}`;
