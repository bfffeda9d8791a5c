// Sentences that the Logbook, Undo and the questions share.

/** `1 message`, `12 messages`, `1,200 messages`. */
export const messages = (count: number): string => `${count.toLocaleString('en')} message${count === 1 ? '' : 's'}`;

/** `Archived 3 messages`, or `Archived “Berth 4 closed”` for a single one. */
export function didTo(done: string, count: number, subject: string | null, where = ''): string {
  const what = count === 1 && subject !== null ? `“${short(subject || 'No subject')}”` : messages(count);
  return `${done} ${what}${where}`;
}

/** A subject cut to a length that fits a line. */
export const short = (text: string, length = 60): string =>
  text.length <= length ? text : `${text.slice(0, length - 1).trimEnd()}…`;

/** Why something failed, in words. */
export const reasonOf = (error: unknown): string => (error instanceof Error ? error.message : String(error));
