// Blanks in texts.

/** A text with each run of blanks as one space. */
export const blanksAsOne = (text: string): string => text.replace(/\s+/g, ' ');
