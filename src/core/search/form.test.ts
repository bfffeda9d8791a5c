// Line and form are two views of one query: what one says the other says.
import fc from 'fast-check';
import { emptyForm, formOf, queryOf } from './form';
import { dayKeys, joined, parseQuery, queryText, stateKeys, textKeys, type Query } from './query';

const parsed = (text: string): Query => {
  const result = parseQuery(text);
  if (!result.ok) throw new Error(result.error);
  return result.query;
};

const text = fc.string({ minLength: 1, maxLength: 6 });
const leaf: fc.Arbitrary<Query> = fc.oneof(
  fc.constant<Query>({ key: 'all' }),
  fc.record({ key: fc.constantFrom(...stateKeys), value: fc.boolean() }),
  fc.record({ key: fc.constantFrom(...textKeys, 'words' as const), text }),
  fc.record({ key: fc.constant('header' as const), name: fc.constant('X-A'), text }),
  fc.record({ key: fc.constant('keyword' as const), label: text }),
  fc.record({ key: fc.constantFrom(...dayKeys), day: fc.integer({ min: 0, max: 20_000 }).map((d) => d * 86_400_000) }),
  fc.record({ key: fc.constantFrom('larger' as const, 'smaller' as const), bytes: fc.nat() }),
);
const query = fc.letrec<{ query: Query }>((tie) => ({
  query: fc.oneof(
    { depthSize: 'small' },
    leaf,
    tie('query').map((of): Query => ({ key: 'not', of })),
    fc.tuple(tie('query'), tie('query')).map((of): Query => ({ key: 'or', of })),
    fc.array(tie('query'), { minLength: 2, maxLength: 5 }).map((of): Query => ({ key: 'and', of })),
  ),
})).query;

/** All that must hold, whatever its order; `all` asks for nothing. */
function demands(of: Query): string[] {
  if (of.key === 'and') return of.of.flatMap(demands).sort();
  return of.key === 'all' ? [] : [JSON.stringify(of)];
}

test('a query put into the form and read from it asks for the same, and stays as it is from then on', () => {
  fc.assert(
    fc.property(query, (asked) => {
      const again = queryOf(formOf(asked));
      expect(demands(again)).toEqual(demands(asked));
      expect(queryOf(formOf(again))).toEqual(again);
      // Over the line, too.
      expect(demands(queryOf(formOf(parsed(queryText(again)))))).toEqual(demands(asked));
    }),
    { numRuns: 500 },
  );
});

test('each key that people use most has its field; the rest stands beside them', () => {
  const form = formOf(
    parsed(
      'harbour "two words" from ann to desk subject fuel body tank keyword "Engine room" since 2026-09-01 ' +
        'before 1-Oct-2026 larger 1000 smaller 9000 unseen flagged answered from bob not subject rope or seen flagged',
    ),
  );
  expect(form).toEqual({
    words: ['harbour', 'two words'],
    texts: { from: 'ann', to: 'desk', subject: 'fuel', body: 'tank' },
    label: 'Engine room',
    days: { since: Date.UTC(2026, 8, 1), before: Date.UTC(2026, 9, 1) },
    sizes: { larger: 1_000, smaller: 9_000 },
    states: { seen: false, flagged: true, answered: true },
    others: [parsed('from bob'), parsed('not subject rope'), parsed('or seen flagged')],
  });
  expect(queryText(queryOf(form))).toContain('harbour "two words" from ann to desk');
});

test('an empty form asks for all, and all is an empty form', () => {
  expect(queryOf(emptyForm())).toEqual({ key: 'all' });
  expect(formOf({ key: 'all' })).toEqual(emptyForm());
  expect(joined([])).toEqual({ key: 'all' });
});
