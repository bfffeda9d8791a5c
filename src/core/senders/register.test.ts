import fc from 'fast-check';
import { parseEntry, RegisterIndex, sameEntry, type Entry } from './register';

const entry = (value: string, standing: Entry['standing'] = 'blocked'): Entry => {
  const read = parseEntry(value);
  if (!read.ok) throw new Error(read.error);
  return { id: value, kind: read.kind, value: read.value, standing, since: 0, why: '' };
};

test.each([
  ['ana@harbour.example', 'address', 'ana@harbour.example'],
  ['  Ana@HARBOUR.example ', 'address', 'ana@harbour.example'],
  ['<ana@harbour.example>', 'address', 'ana@harbour.example'],
  ['harbour.example', 'domain', 'harbour.example'],
  ['@harbour.example', 'domain', 'harbour.example'],
  ['Harbour.Example.', 'domain', 'harbour.example'],
])('%s is read as the %s %s', (typed, kind, value) => {
  expect(parseEntry(typed)).toEqual({ ok: true, kind, value });
});

test.each([
  ['', 'Type an address or a domain.'],
  ['harbour', '“harbour” is no domain: it needs a dot, as in harbour.example.'],
  ['ana@', '“” is no domain: it needs a dot, as in harbour.example.'],
  ['a@b.example, c@d.example', 'One address or domain, without blanks or commas.'],
  ['a..b', '“a..b” is no domain: it needs a dot, as in harbour.example.'],
])('“%s” is refused with the reason', (typed, error) => {
  expect(parseEntry(typed)).toEqual({ ok: false, error });
});

describe('the more exact entry wins (common practice, no source)', () => {
  const index = new RegisterIndex([
    entry('example.org', 'blocked'),
    entry('news.example.org', 'safe'),
    entry('bad@news.example.org', 'blocked'),
  ]);
  test.each([
    ['bad@news.example.org', 'bad@news.example.org'],
    ['good@news.example.org', 'news.example.org'],
    ['x@deep.news.example.org', 'news.example.org'],
    ['x@EXAMPLE.org', 'example.org'],
    ['x@notexample.org', undefined],
    ['x@org', undefined],
    ['', undefined],
  ])('%s', (address, id) => {
    expect(index.lookUp(address)?.id).toBe(id);
  });
});

test('the order of entries never matters', () => {
  const label = fc.constantFrom('a', 'b', 'c');
  const domain = fc.array(label, { minLength: 2, maxLength: 4 }).map((parts) => parts.join('.'));
  const value = fc.oneof(
    domain,
    fc.tuple(label, domain).map(([l, d]) => `${l}@${d}`),
  );
  fc.assert(
    fc.property(fc.uniqueArray(value, { maxLength: 8 }), fc.tuple(label, domain), (values, [local, at]) => {
      const entries = values.map((v, i) => entry(v, i % 2 ? 'safe' : 'blocked'));
      const forward = new RegisterIndex(entries).lookUp(`${local}@${at}`);
      const backward = new RegisterIndex(entries.toReversed()).lookUp(`${local}@${at}`);
      expect(forward).toBe(backward);
      // What is found is the longest that fits.
      for (const e of entries) {
        const fits = e.kind === 'address' ? e.value === `${local}@${at}` : `.${at}`.endsWith(`.${e.value}`);
        if (fits) expect(forward?.value.length).toBeGreaterThanOrEqual(e.value.length);
      }
    }),
  );
});

test('the entry that decides a value already', () => {
  const entries = [entry('a.example'), entry('x@a.example')];
  expect(sameEntry(entries, 'domain', 'a.example')?.id).toBe('a.example');
  expect(sameEntry(entries, 'domain', 'b.example')).toBeNull();
});
