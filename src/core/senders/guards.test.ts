import { guardsOf } from './guards';
import { parseEntryOf, type Entry, type EntryKind } from './register';

const entry = (kind: EntryKind, typed: string, part: Partial<Entry> = {}): Entry => {
  const read = parseEntryOf(kind, typed);
  if (!read.ok) throw new Error(read.error);
  return { id: `${kind} ${typed}`, kind, value: read.value, standing: 'blocked', since: 0, why: '', ...part };
};
const shared = new Set(['free-mail.test']);
const people = [
  { name: 'Ana', address: 'ana@harbour.example' },
  { name: 'Bo', address: 'bo@quay.no' },
];
const kinds = (one: Entry, others: Entry[] = []) =>
  guardsOf([one], ['me@ferry.example'], people, [...others, one], shared).map(({ kind }) => kind);

test.each([
  ['a public suffix', entry('domain', 'co.uk'), ['public suffix']],
  ['a private one', entry('domain', 'github.io'), ['public suffix']],
  ['one’s own domain', entry('domain', 'ferry.example'), ['own domain']],
  ['one’s own address', entry('address', 'me@ferry.example'), ['own domain']],
  ['a domain of free mailboxes', entry('domain', 'free-mail.test'), ['shared domain']],
  ['people written to, by domain', entry('domain', 'harbour.example'), ['people written to']],
  ['people written to, by country', entry('country', 'no'), ['people written to']],
  ['a stranger', entry('domain', 'junk.test'), []],
  ['every country', entry('country', '*'), ['people written to', 'everything']],
  ['every script but one', entry('script', '*', { except: ['Latn'] }), []],
  ['every script but one that is rare', entry('script', '*', { except: ['Cyrl'] }), ['broad']],
  ['Latin letters', entry('script', 'Latn'), ['broad']],
  ['Cyrillic letters', entry('script', 'Cyrl'), []],
  ['UTF-8', entry('charset', 'utf-8'), ['broad']],
  ['a character set of one alphabet', entry('charset', 'koi8-r'), []],
  ['mail to one’s own address', entry('own', 'me@ferry.example'), ['broad']],
  ['a safe domain', entry('domain', 'harbour.example', { standing: 'safe' }), []],
])('blocking %s', (_what, one, expected) => expect(kinds(one)).toEqual(expected));

test('whom it would hit is named, but not who has a more exact entry', () => {
  const domain = entry('domain', 'harbour.example');
  expect(guardsOf([domain], [], people, [domain], shared)[0].people).toEqual([people[0]]);
  expect(kinds(domain, [entry('address', 'ana@harbour.example', { standing: 'safe' })])).toEqual([]);
});

test('a domain without its subdomains does not hit those', () => {
  const alone = entry('domain', 'quay.no', { below: false });
  expect(guardsOf([alone], [], [{ name: '', address: 'x@mail.quay.no' }], [alone], shared)).toEqual([]);
});

test('several at once are asked about as single ones are, each reason once', () => {
  const many = ['co.uk', 'github.io', 'harbour.example', 'junk.test'].map((value) => entry('domain', value));
  const safe = entry('domain', 'quay.no', { standing: 'safe' });
  const guards = guardsOf([...many, safe], [], people, [...many, safe], shared);
  expect(guards.map(({ says }) => says)).toEqual([
    'co.uk, github.io belong to nobody: strangers of all kinds have their domains below them (Public Suffix List).',
    'You wrote to one person whom it would block.',
  ]);
});
