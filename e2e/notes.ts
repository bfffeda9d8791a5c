// What a browser test tells of itself, for the table of times (timesReporter.ts), by the kinds of its annotations.

/** Seconds of processor time. */
export const timeNote = 'processor seconds';

/** The pages that it was on, by the first words of their addresses. */
export const pagesNote = 'pages';
