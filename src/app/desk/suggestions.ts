// What is suggested while a query is typed: keys, people, labels, days, sizes.
import { format, subMonths, subWeeks, subYears } from 'date-fns';
import { useState } from 'react';
import type { Setup } from '../../core/line/setup';
import type { Address } from '../../core/mail/address';
import { quoted } from '../../core/search/query';
import { expectedAt, keyMeanings, type Expected } from '../../core/search/suggest';
import { mailroom } from '../../mailroom/client';
import { useAnswer } from '../ui/useAnswer';

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

/** What may be put in where something is expected. `people`: whoever is called as it is typed. */
export function suggestionsFor(
  { what, typed }: Expected,
  setup: Setup,
  people: readonly Address[],
  now: number,
): Suggestion[] {
  const low = typed.toLowerCase();
  const labels = setup.labels.filter(({ name }) => name.toLowerCase().includes(low));
  const persons = people.map(({ name, address }) => ({ puts: quoted(address), means: name || address }));
  switch (what) {
    case 'person':
      return persons.slice(0, most);
    case 'label':
      return labels.slice(0, most).map(({ name }) => ({ puts: quoted(name), means: 'label' }));
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
          ...labels.slice(0, 3).map(({ name }) => ({ puts: `keyword ${quoted(name)}`, means: 'label' })),
        ];
  return [...keys.slice(0, named.length ? 4 : most), ...named].slice(0, most);
}

/** Suggestions for the caret of a query that is being typed; none where `asked` is false. */
export function useSuggestions(
  text: string,
  caret: number,
  setup: Setup,
  asked: boolean,
): { expected: Expected; list: Suggestion[] } {
  const [now] = useState(() => Date.now());
  const expected = expectedAt(text, caret);
  const { what, typed } = expected;
  const wanted = asked && (what === 'person' || (what === 'key' && typed.length > 1));
  const { value } = useAnswer(
    async () => (wanted ? { typed, people: await mailroom.people(typed, most) } : null),
    `${wanted} ${typed}`,
    wanted ? 60 : 0,
  );
  const people = wanted && value?.typed === typed ? value.people : [];
  return { expected, list: asked ? suggestionsFor(expected, setup, people, now) : [] };
}
