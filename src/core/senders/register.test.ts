import fc from 'fast-check';
import { parseEnvelope } from '../mail/envelope';
import {
  entryKinds,
  entryWords,
  parseEntry,
  parseEntryOf,
  RegisterIndex,
  sameEntry,
  type Entry,
  type EntryKind,
} from './register';

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
  ['ana@', 'Behind its “@” no domain stands.'],
  ['a@b.example, c@d.example', 'One address or domain, without blanks or commas.'],
  ['two words.example', 'One address or domain, without blanks or commas.'],
  ['a..b', '“a..b” is no domain: each of its parts is letters, digits and hyphens, as in harbour.example.'],
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
    expect(index.ofAddress(address)?.id).toBe(id);
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
      const forward = new RegisterIndex(entries).ofAddress(`${local}@${at}`);
      const backward = new RegisterIndex(entries.toReversed()).ofAddress(`${local}@${at}`);
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

describe('the order of exactness: address, domain, list, own address, country, character set, writing system', () => {
  const message = parseEnvelope(
    new TextEncoder().encode(
      'From: Ana <ana+news@mail.harbour.no>\r\nTo: other@x.test, Me@Ferry.example\r\nList-Id: <crew.harbour.no>\r\n' +
        'Subject: Привет\r\nContent-Type: text/plain; charset=koi8-r\r\n\r\n',
    ),
  );
  const of = (kind: EntryKind, typed: string, part: Partial<Entry> = {}): Entry => {
    const read = parseEntryOf(kind, typed);
    if (!read.ok) throw new Error(read.error);
    return { id: `${kind} ${typed}`, kind, value: read.value, standing: 'blocked', since: 0, why: '', ...part };
  };
  // The most exact first.
  const all = [
    of('address', 'ana+news@mail.harbour.no'),
    of('address', 'ana@mail.harbour.no'),
    of('domain', 'mail.harbour.no'),
    of('domain', 'harbour.no'),
    of('list', 'crew.harbour.no'),
    of('own', 'me@ferry.example'),
    of('country', 'no'),
    of('country', '*'),
    of('charset', 'koi8-r'),
    of('charset', '*'),
    of('script', 'Cyrl'),
    of('script', '*'),
  ];

  test('each counts where nothing more exact is there', () => {
    for (let i = 0; i < all.length; i++)
      expect(new RegisterIndex(all.slice(i)).lookUp({ ...message, script: 'Cyrl' })?.id).toBe(all[i].id);
    expect([...new RegisterIndex(all).fitting({ ...message, script: 'Cyrl' })]).toEqual(all);
  });

  test('the order of entries never matters', () => {
    fc.assert(
      fc.property(fc.shuffledSubarray(all), (some) => {
        const index = new RegisterIndex(some);
        const best = all.find((entry) => some.includes(entry));
        expect(index.lookUp({ ...message, script: 'Cyrl' })).toBe(best ?? null);
      }),
    );
  });

  test('a domain without its subdomains does not go for what lies below it', () => {
    expect(new RegisterIndex([of('domain', 'harbour.no', { below: false })]).lookUp(message)).toBeNull();
    expect(new RegisterIndex([of('domain', 'mail.harbour.no', { below: false })]).lookUp(message)?.value).toBe(
      'mail.harbour.no',
    );
  });

  test('all but some', () => {
    expect(new RegisterIndex([of('country', '*', { except: ['no'] })]).lookUp(message)).toBeNull();
    expect(new RegisterIndex([of('country', '*', { except: ['se'] })]).lookUp(message)?.value).toBe('*');
    // What ends in no country’s domain is no country’s.
    expect(
      new RegisterIndex([of('country', '*')]).lookUp({ ...message, from: { name: '', address: 'a@b.com' } }),
    ).toBeNull();
  });

  test('normal forms meet: IDN, case, trailing dots, quotes', () => {
    const index = new RegisterIndex([of('domain', 'Bücher.example'), of('address', '"ana"@quay.example')]);
    expect(index.ofAddress('X@xn--bcher-kva.example')?.kind).toBe('domain');
    expect(index.ofAddress('x@bücher.EXAMPLE.')?.kind).toBe('domain');
    expect(index.ofAddress('Ana@Quay.example')?.kind).toBe('address');
  });

  test('each kind has words of its own', () => {
    expect(new Set(all.map((entry) => entryWords(entry))).size).toBe(all.length);
    expect(entryWords(of('country', '*', { except: ['ch', 'cn'] }))).toBe(
      'all country domains but Switzerland (.ch), China (.cn)',
    );
  });
});

test.each([
  ['country', '.CH', { ok: true, kind: 'country', value: 'ch' }],
  ['country', 'zz', { ok: false, error: '“zz” is no country’s domain: it has two letters, as in ch for Switzerland.' }],
  ['script', 'cyrl', { ok: true, kind: 'script', value: 'Cyrl' }],
  ['script', 'Klingon', { ok: false, error: '“Klingon” is no writing system that can be told apart.' }],
  ['list', '<Crew.Harbour.example>', { ok: true, kind: 'list', value: 'crew.harbour.example' }],
  ['own', 'harbour.example', { ok: false, error: 'One of your own addresses, with what stands before the “@”.' }],
  ['charset', 'KOI8-R', { ok: true, kind: 'charset', value: 'koi8-r' }],
  ['charset', 'what is this', { ok: false, error: '“what is this” is no name of a character set, as in koi8-r.' }],
  ['address', 'harbour.example', { ok: false, error: 'This is a domain: an address has a name before its “@”.' }],
  ['domain', 'a@harbour.example', { ok: false, error: 'This is an address: leave out what stands before the “@”.' }],
] as const)('an entry of the kind %s, typed as %s', (kind, typed, expected) => {
  expect(entryKinds).toContain(kind);
  expect(parseEntryOf(kind, typed)).toEqual(expected);
});

test('an entry that stands in a setup stays, also one that nobody could type any more', () => {
  expect(parseEntryOf('address', 'mailto:ana@harbour.example').ok).toBe(false);
  expect(parseEntryOf('address', 'mailto:ana@harbour.example', true)).toMatchObject({
    value: 'mailto:ana@harbour.example',
  });
});
