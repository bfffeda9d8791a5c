// What a stranger names (people, subjects, files), as it may stand in one line of ours.

/** The most characters of it. */
export const longestLine = 2_000;

/** Characters that would turn the rest of a line around, or are no text at all: they never belong in a one-line field. */
const unwanted = new RegExp('[\\u0000-\\u001f\\u007f\\u202a-\\u202e\\u2066-\\u2069]+', 'g');

/** Most lines are tidy as they stand: to see that takes a fraction of tidying them. */
const untidy = new RegExp(`${unwanted.source}|\\s\\s|[^\\S ]|^\\s|\\s$`);

/** A text as one line, without what could turn it around, at most {@link longestLine} characters. */
export const oneLine = (text: string): string =>
  (untidy.test(text) ? text.replace(unwanted, ' ').replace(/\s+/g, ' ').trim() : text).slice(0, longestLine);

/** A text with a blank where such characters stood, its own blanks as they are. */
export const withBlanks = (text: string): string => text.replace(unwanted, ' ');

/** Of those, the ones that are no blank either. */
const turning = /[\0\u202a-\u202e\u2066-\u2069]+/g;

/** A text without what could turn the line around that it stands in, all else as it is. */
export const withoutTurns = (text: string): string => text.replace(turning, '');
