// What was done, by kind, as the Logbook sorts it.

/** What an entry did; it may be of several kinds. */
export const logKinds = [
  'moved',
  'marked',
  'flagged',
  'labelled',
  'arrived',
  'setup',
  'agenda',
  'undone',
  'deleted',
] as const;

export type LogKind = (typeof logKinds)[number];
