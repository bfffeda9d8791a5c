// What is suggested while a query is typed: the mailroom knows the people, the rest is known here.
import { namesApart } from '../../core/mail/nesting';
import { useState } from 'react';
import type { Setup } from '../../core/line/setup';
import { expectedAt, suggestionsFor, type Expected, type Suggestion } from '../../core/search/suggest';
import { mailroom } from '../../mailroom/client';
import { useAnswer } from '../ui/useAnswer';

/** People asked for at a time. */
const most = 8;

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
  const apart = namesApart(setup.labels);
  const labels = setup.labels.map(({ id }) => apart(id));
  const people = wanted && value?.typed === typed ? value.people : [];
  return { expected, list: asked ? suggestionsFor(expected, labels, people, now) : [] };
}
