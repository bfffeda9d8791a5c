// Suggestions while a query is typed: what may stand at the caret, and what is typed of it so far.
import { format, subMonths, subWeeks, subYears } from 'date-fns';
import type { Address } from '../mail/address';
import { dayKeys, quoted, stateKeys, textKeys, tokens } from './query';

/** What stands at a place of a query. `text` is free, and nothing is suggested for it. */
export type ExpectedKind = 'key' | 'person' | 'label' | 'day' | 'size' | 'text';

/** What is expected at the caret: it would replace the text from `from` to `to` (UTF-16 units). */
export interface Expected {
  what: ExpectedKind;
  from: number;
  to: number;
  /** What is typed of it, without quotation marks. */
  typed: string;
}

/** Every key with what it asks for, the ones used most first. */
export const keyMeanings: readonly (readonly [key: string, means: string])[] = [
  ['from', 'who wrote it'],
  ['to', 'to whom it went'],
  ['subject', 'words of its subject'],
  ['since', 'on a day or later'],
  ['before', 'before a day'],
  ['unseen', 'not read yet'],
  ['flagged', 'with a flag'],
  ['keyword', 'with a label'],
  ['larger', 'of more bytes'],
  ['body', 'words of its text'],
  ['not', 'but not the next key'],
  ['or', 'one of the next two keys'],
  ['seen', 'read'],
  ['answered', 'you answered it'],
  ['unanswered', 'you did not answer it'],
  ['unflagged', 'without a flag'],
  ['unkeyword', 'without a label'],
  ['on', 'on a day'],
  ['smaller', 'of fewer bytes'],
  ['text', 'words anywhere, also in its header'],
  ['cc', 'who got a copy'],
  ['bcc', 'who got a hidden copy'],
  ['header', 'a header field and what it says'],
  ['sentsince', 'written on a day or later'],
  ['sentbefore', 'written before a day'],
  ['senton', 'written on a day'],
  ['deleted', 'in the Bin'],
  ['undeleted', 'not in the Bin'],
  ['draft', 'in Drafts'],
  ['undraft', 'not in Drafts'],
  ['all', 'all there is'],
];

const people = new Set<string>(['from', 'to', 'cc', 'bcc']);
const noValue = new Set<string>(['all', 'not', 'or', '(', ')', ...stateKeys, ...stateKeys.map((key) => `un${key}`)]);

/** What follows a key, in order; nothing for a word that is looked for. */
function valuesOf(key: string): readonly ExpectedKind[] {
  if (noValue.has(key)) return [];
  if (people.has(key)) return ['person'];
  if ((textKeys as readonly string[]).includes(key)) return ['text'];
  if ((dayKeys as readonly string[]).includes(key)) return ['day'];
  if (key === 'keyword' || key === 'unkeyword') return ['label'];
  if (key === 'larger' || key === 'smaller') return ['size'];
  if (key === 'header') return ['text', 'text'];
  return [];
}

/** What may stand at the caret of a query that is being typed. `expectedAt('from ann', 8)` is a person, typed “ann”. */
export function expectedAt(text: string, caret: number): Expected {
  const before = tokens(text.slice(0, caret), true);
  const last = before.at(-1);
  // Right after a blank or a parenthesis something new begins.
  const open = last?.end === caret && (last.quoted || !/[()]/.test(last.text)) ? last : undefined;
  const closed =
    open?.quoted === true &&
    caret > open.at + 1 &&
    text[caret - 1] === '"' &&
    !text.slice(open.at, caret).endsWith('\\"');
  const done = open && !closed ? before.slice(0, -1) : before;
  let waiting: readonly ExpectedKind[] = [];
  for (const token of done) {
    if (waiting.length) waiting = waiting.slice(1);
    else waiting = token.quoted ? [] : valuesOf(token.text.toLowerCase());
  }
  const what = waiting[0] ?? 'key';
  if (!open || closed) return { what, from: caret, to: caret, typed: '' };
  // What of the word stands behind the caret goes, too.
  const rest = open.quoted ? 0 : (/^[^\s()"]*/.exec(text.slice(caret))?.[0].length ?? 0);
  return { what, from: open.at, to: caret + rest, typed: open.text };
}

/** The query with a suggestion put in, and where the caret is then: behind it and a blank. */
export function accepted(text: string, { from, to }: Expected, suggestion: string): { text: string; caret: number } {
  const rest = text.slice(to).replace(/^ /, '');
  const head = `${text.slice(0, from)}${suggestion} `;
  return { text: head + rest, caret: head.length };
}

/** One suggestion: what it puts into the query, and what that is. */
export interface Suggestion {
  puts: string;
  means: string;
}

const most = 8;

const days = (now: number): Suggestion[] =>
  (
    [
      [now, 'today'],
      [subWeeks(now, 1), 'a week ago'],
      [subMonths(now, 1), 'a month ago'],
      [subMonths(now, 6), 'six months ago'],
      [subYears(now, 1), 'a year ago'],
    ] as const
  ).map(([day, means]) => ({ puts: format(day, 'yyyy-MM-dd'), means }));

const sizes: Suggestion[] = [
  { puts: '100000', means: '100 KB' },
  { puts: '1000000', means: '1 MB' },
  { puts: '10000000', means: '10 MB' },
];

/**
 * What may be put in where something is expected. `people`: whoever is called as it is typed; `now` in milliseconds since
 * 1970.
 */
export function suggestionsFor(
  { what, typed }: Expected,
  labelNames: readonly string[],
  people: readonly Address[],
  now: number,
): Suggestion[] {
  const low = typed.toLowerCase();
  const labels = labelNames.filter((name) => name.toLowerCase().includes(low));
  const persons = people.map(({ name, address }) => ({ puts: quoted(address), means: name || address }));
  switch (what) {
    case 'person':
      return persons.slice(0, most);
    case 'label':
      return labels.slice(0, most).map((name) => ({ puts: quoted(name), means: 'label' }));
    case 'day':
      return days(now).filter(({ puts }) => puts.startsWith(low));
    case 'size':
      return sizes.filter(({ puts }) => puts.startsWith(low));
    case 'text':
      return [];
  }
  const keys = keyMeanings.filter(([key]) => key.startsWith(low)).map(([puts, means]) => ({ puts, means }));
  // A name is seldom meant by one letter.
  const named =
    low.length < 2
      ? []
      : [
          ...persons.slice(0, 4).map(({ puts, means }) => ({ puts: `from ${puts}`, means })),
          ...labels.slice(0, 3).map((name) => ({ puts: `keyword ${quoted(name)}`, means: 'label' })),
        ];
  return [...keys.slice(0, named.length ? 4 : most), ...named].slice(0, most);
}
