// What a script may require, and how its tests compare: extensions, comparators, relations.

/** Extensions that are read, as “require” names them. */
export const extensions = [
  'fileinto',
  'envelope',
  'copy',
  'body',
  'relational',
  'imap4flags',
  'date',
  'mailbox',
  'encoded-character',
  'comparator-i;octet',
  'comparator-i;ascii-casemap',
  'comparator-i;ascii-numeric',
  'comparator-i;unicode-casemap',
] as const;

export type Extension = (typeof extensions)[number];

export const comparators = ['i;octet', 'i;ascii-casemap', 'i;ascii-numeric', 'i;unicode-casemap'] as const;

export type SieveComparator = (typeof comparators)[number];

export const relations = ['gt', 'ge', 'lt', 'le', 'eq', 'ne'] as const;

export type Relation = (typeof relations)[number];

export type Match = { type: 'is' | 'contains' | 'matches' } | { type: 'count' | 'value'; relation: Relation };
