import fc from 'fast-check';
import { entryKinds, parseEntryOf, type Entry } from './register';
import { mergeEntries, registerFromCsv, registerToCsv } from './registerCsv';

const now = Date.UTC(2026, 10, 25);
const entry = (part: Partial<Entry>): Entry => ({
  id: 'x',
  kind: 'domain',
  value: 'harbour.example',
  standing: 'blocked',
  since: now,
  why: '',
  ...part,
});
const withoutId = (whole: Entry): Omit<Entry, 'id'> => {
  const { id, ...rest } = whole;
  return id ? rest : whole;
};

test('what is written is read back, of every kind', () => {
  const entries = [
    entry({}),
    entry({ value: 'quay.example', below: false, why: 'A “reason”, with commas\nand lines' }),
    entry({ kind: 'address', value: 'ana@harbour.example', standing: 'safe' }),
    entry({ kind: 'list', value: 'crew.harbour.example' }),
    entry({ kind: 'own', value: 'me@ferry.example', standing: 'safe' }),
    entry({ kind: 'country', value: '*', except: ['no', 'se'] }),
    entry({ kind: 'charset', value: 'koi8-r' }),
    entry({ kind: 'script', value: 'Cyrl' }),
  ];
  const { entries: read, wrong, rows, head } = registerFromCsv(registerToCsv(entries), 'safe', 0);
  expect(read).toEqual(entries.map(withoutId));
  expect([wrong, rows, head?.unknown]).toEqual([[], [2, 3, 4, 5, 6, 7, 8, 9], []]);
});

test('cells that a spreadsheet would take for a formula are made harmless, and come back as they were (OWASP, CSV injection)', () => {
  const hostile = ['=1+1', '+1', '-1', '@SUM(A1)', '\tx', '=HYPERLINK("http://evil.test","x")'];
  const csv = registerToCsv(hostile.map((why, i) => entry({ value: `a${i}.example`, why })));
  for (const row of csv.split('\r\n').slice(1, -1))
    for (const cell of row.split(',')) expect(cell).not.toMatch(/^"?[=+\-@\t]/);
  expect(registerFromCsv(csv, 'safe', 0).entries.map(({ why }) => why)).toEqual(hostile);
});

test('any text in the reason survives', () => {
  fc.assert(
    fc.property(fc.string({ maxLength: 200, unit: 'grapheme' }), (why) => {
      const clean = why.trim();
      const { entries, wrong } = registerFromCsv(registerToCsv([entry({ why: clean })]), 'safe', 0);
      expect(wrong).toEqual([]);
      // An apostrophe before such a sign is taken for ours.
      if (!/^'[=+\-@\t\r]/.test(clean)) expect(entries[0].why).toBe(clean);
    }),
  );
});

test('a plain list is read, one a line, with the standing that was chosen', () => {
  const { entries, wrong } = registerFromCsv(
    '\nAna@harbour.example\n\n@quay.example\nsafe.example,safe\n',
    'blocked',
    now,
  );
  expect(wrong).toEqual([]);
  expect(entries.map(({ kind, value, standing }) => `${kind} ${value} ${standing}`)).toEqual([
    'address ana@harbour.example blocked',
    'domain quay.example blocked',
    'domain safe.example safe',
  ]);
});

test.each([
  ['no domain', 'harbour', /is no domain/],
  ['no kind', 'kind,value\nplanet,x.example', /“planet” is no kind/],
  ['no standing', 'value,standing\nx.example,perhaps', /“perhaps” is no standing/],
  ['no country', 'kind,value\ncountry,zz', /is no country’s domain/],
  ['no date', 'value,since\nx.example,someday', /“someday” is no date/],
  ['twice', 'x.example\nX.example', /stands in row 1 already/],
  ['exceptions of one', 'value,except\nx.example,y.example', /Only an entry for \*/],
  ['a wrong exception', 'kind,value,except\ncountry,*,zz', /is no country’s domain/],
  ['subdomains perhaps', 'value,subdomains\nx.example,maybe', /it is yes or no/],
])('a row with %s is refused with the reason', (_what, csv, reason) => {
  const { wrong } = registerFromCsv(csv, 'blocked', now);
  expect(wrong).toHaveLength(1);
  expect(wrong[0].reason).toMatch(reason);
});

test('of 2,000 rows with 30 wrong ones, the rest is taken, and each wrong one is named by its row', () => {
  const rows = Array.from({ length: 2_000 }, (_, i) => (i % 67 === 5 ? `not a domain ${i}` : `sender${i}.example`));
  const { entries, wrong } = registerFromCsv(`value\n${rows.join('\n')}\n`, 'blocked', now);
  expect([entries.length, wrong.length]).toEqual([1_970, 30]);
  expect(wrong[0]).toMatchObject({ row: 7, text: 'not a domain 5' });
});

test('a quotation mark that is never closed is told with its row, and what comes after it is nobody’s entry', () => {
  const lines = Array.from({ length: 500 }, (_, i) => `one${i}.test`);
  lines[20] = '"open.test';
  const { entries, wrong } = registerFromCsv(lines.join('\n'), 'blocked', now);
  expect(entries).toHaveLength(20);
  expect(wrong).toEqual([
    { row: 21, text: expect.any(String), reason: expect.stringMatching(/never closed: nothing from here on/) },
  ]);
});

test('taking entries up changes what is there, adds what is new, and leaves what is the same', () => {
  const register = [entry({ id: 'a' }), entry({ id: 'b', value: 'quay.example' })];
  const incoming = [entry({}), entry({ value: 'quay.example', standing: 'safe' }), entry({ value: 'new.example' })].map(
    withoutId,
  );
  const { edits, ...counts } = mergeEntries(register, incoming, () => 'made');
  expect(counts).toEqual({ added: 1, changed: 1, same: 1, takings: ['same', 'changes', 'new'] });
  expect(edits.map(({ id }) => id)).toEqual(['b', 'made']);
});

test('a reason stays where the row gives none, and a row that gives another changes it', () => {
  const register = [entry({ id: 'a', why: 'Sells lists' }), entry({ id: 'b', value: 'quay.example', why: 'Old' })];
  const { entries } = registerFromCsv('harbour.example,safe\nquay.example,blocked,"New, and why"', 'blocked', now);
  const { edits } = mergeEntries(register, entries, () => 'made');
  expect(edits.map(({ id, why }) => [id, why])).toEqual([
    ['a', 'Sells lists'],
    ['b', 'New, and why'],
  ]);
});

test.each([
  ['Email;Name\nana@harbour.example;Ana', ['value'], ['Name'], ['ana@harbour.example']],
  ['domain\nquay.example', ['value'], [], ['quay.example']],
  ['colour,value,reason,value\nred,x.example,No,y.example', ['why', 'value'], ['colour', 'value'], ['y.example']],
  ['quay.example', undefined, undefined, ['quay.example']],
])('the first row may name the columns, and one that is not understood is said: %j', (csv, known, unknown, values) => {
  const { entries, head, wrong } = registerFromCsv(csv, 'blocked', now);
  expect([head?.known, head?.unknown]).toEqual([known, unknown]);
  expect(entries.map(({ value }) => value)).toEqual(values);
  expect(wrong).toEqual([]);
});

test('of many wrong rows the first are listed, and all counted', () => {
  const { wrong, wrongCount } = registerFromCsv('nothing\n'.repeat(2_000), 'blocked', now);
  expect([wrong.length, wrongCount]).toEqual([500, 2_000]);
});

test.each([
  ['*.foo.test', 'Without “*.”: an entry for foo.test goes for all of its addresses, and for what lies below it.'],
  ['.foo.test', 'Without “.”: an entry for foo.test goes for all of its addresses, and for what lies below it.'],
  ['*@foo.test', 'Without “*@”: an entry for foo.test goes for all of its addresses, and for what lies below it.'],
  ['https://foo.test/a?b', 'This is an address of the web. The domain in it: foo.test'],
  ['http://foo.test:8080', 'This is an address of the web. The domain in it: foo.test'],
  ['foo.test/a', 'This is an address of the web. The domain in it: foo.test'],
  ['mailto:ana@foo.test', 'Without “mailto:”: ana@foo.test'],
  ['ana@', 'Behind its “@” no domain stands.'],
  ['-a.test', '“-a.test” is no domain: each of its parts is letters, digits and hyphens, as in harbour.example.'],
  ['harbour', '“harbour” is no domain: it needs a dot, as in harbour.example.'],
])('%s is refused with what is wrong about it', (typed, error) => {
  expect(parseEntryOf('domain', typed)).toEqual({ ok: false, error });
});

test('every kind can be read', () => {
  const values = {
    address: 'a@b.test',
    domain: 'b.test',
    list: 'x.b.test',
    own: 'a@b.test',
    country: 'no',
    charset: 'utf-8',
    script: 'Latn',
  };
  for (const kind of entryKinds) expect(parseEntryOf(kind, values[kind])).toMatchObject({ ok: true, kind });
});

test.each(['.', 'a.', 'constructor.', '}.', '/', '@.', '.[', '*.', 'a:', '-'])(
  'what repeats “%s” is refused in step with its length',
  (part) => {
    // In step with the square of it, it would take longer than a test may.
    const { wrongCount } = registerFromCsv(`value\n${part.repeat(200_000)}\n`, 'blocked', now);
    expect(wrongCount).toBe(1);
  },
);
